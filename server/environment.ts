/** A variable that the start command sets. @throws Error naming it when it is missing. */
export function requireEnvironment(name: string): string {
  const value = process.env[name];
  if (value === undefined || value === '') {
    throw new Error(`${name} is not set. Start the application with npm start.`);
  }
  return value;
}
