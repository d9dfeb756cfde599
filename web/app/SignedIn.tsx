import { Link } from 'react-router';
import { useSession, useSignOut } from './session';

/** Who is signed in, and the way out. */
export function SignedIn() {
  const { person, laboratory } = useSession();
  const signOut = useSignOut();
  return (
    <div className="mt-3 border-t border-rule pt-2">
      <Link
        to="/account"
        className="flex min-h-12 items-center font-semibold hover:underline lg:min-h-8"
      >
        {person.name}
      </Link>
      <p className="text-xs text-ink-soft">{laboratory.name}</p>
      <button
        type="button"
        className="mt-1 min-h-9 text-violet underline underline-offset-4"
        onClick={() => {
          signOut.mutate();
        }}
      >
        Sign out
      </button>
      <NotSignedOut error={signOut.error} />
    </div>
  );
}

/** Why somebody is still signed in who wanted to leave. */
export function NotSignedOut({ error }: { readonly error: Error | null }) {
  return (
    error && (
      <p role="alert" className="text-blush">
        Not signed out: {error.message}
      </p>
    )
  );
}
