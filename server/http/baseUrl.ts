import type { Request } from 'express';
import { AppError } from './appError';

/** What a printed code can hold beside the address of its page. */
const HOST = /^[\w.:[\]-]{1,200}$/;

/** The address under which a request reached this server, without a slash at its end. @throws AppError for a host that is none */
export function baseUrlOf(request: Request, publicUrl: string | null): string {
  const host = request.get('host') ?? 'localhost';
  if (!HOST.test(host)) throw new AppError('invalid-request', 'The request names no host.');
  return (publicUrl ?? `${request.protocol}://${host}`).replace(/\/$/, '');
}
