import { may } from '#core/rights';
import { useEffect } from 'react';
import type { SessionAnswer } from '#contract';
import { useSignIn } from '../app/session';
import { FormError } from '../ui/FormError';
import { FirstAccountForm } from './FirstAccountForm';
import { PasswordForm } from './PasswordForm';

type Offer = Extract<SessionAnswer, { kind: 'signed-out' }>;

/** The door: the demo's people, name and password, or the first account of a new laboratory. */
export function SignInPage({ offer }: { readonly offer: Offer }) {
  useEffect(() => {
    document.title = 'Sign in · Vine Measure';
  }, []);
  return (
    <div className="flex min-h-screen">
      <GraduatedWall />
      <main className="flex flex-1 flex-col justify-center px-4 py-10 md:px-16">
        <p className="text-lg font-bold">
          <span className="text-leaf">Vine</span> Measure
        </p>
        <h1 className="mt-1 max-w-xl text-[34px] leading-tight font-bold">
          {offer.needsFirstAccount ? 'Begin a new laboratory' : (offer.laboratoryName ?? 'Sign in')}
        </h1>
        <p className="mt-2 max-w-xl text-lg text-ink-soft">
          Titrants made up, standardized and certified, every bottle with a molarity one can rely
          on.
        </p>
        <div className="mt-8">
          {offer.needsFirstAccount ? (
            <FirstAccountForm />
          ) : (
            <div className="flex flex-wrap gap-12">
              {offer.demoPeople.length > 0 && <DemoPeople people={offer.demoPeople} />}
              <PasswordForm isSecond={offer.demoPeople.length > 0} />
            </div>
          )}
        </div>
      </main>
    </div>
  );
}

function DemoPeople({ people }: { readonly people: Offer['demoPeople'] }) {
  const signIn = useSignIn('/session/demo');
  return (
    <section aria-labelledby="demo-people" className="w-full max-w-[400px]">
      <h2 id="demo-people" className="text-lg font-bold">
        Demo: work as
      </h2>
      <ul className="mt-3 flex flex-col gap-3">
        {people.map((person) => (
          <li key={person.id}>
            <button
              type="button"
              disabled={signIn.isPending}
              onClick={() => {
                signIn.mutate({ personId: person.id });
              }}
              className="flex min-h-16 w-full items-center justify-between rounded-md border border-rule-strong bg-sheet px-5 text-left hover:border-violet hover:bg-violet-wash"
            >
              <span className="text-lg font-semibold">{person.name}</span>
              <span className="text-ink-soft">
                {may(person, 'authorize') ? 'titrates and certifies' : 'titrates'}
              </span>
            </button>
          </li>
        ))}
      </ul>
      <p className="mt-3 text-sm text-ink-soft">
        Everybody and everything in the demo is made up. One click signs in, on this machine only.
      </p>
      <div className="mt-3">
        <FormError message={signIn.error?.message} />
      </div>
    </section>
  );
}

/** A burette's wall, seen close. */
function GraduatedWall() {
  const marks = Array.from({ length: 90 }, (_, i) => i);
  return (
    <svg
      aria-hidden="true"
      viewBox="0 0 220 800"
      preserveAspectRatio="xMinYMin slice"
      className="h-screen w-[220px] shrink-0 border-r border-rule max-lg:hidden"
    >
      <rect width="220" height="800" fill="var(--color-glass)" />
      <path d="M0 298q110 54 220 0V800H0z" fill="var(--color-titrant)" />
      <path
        d="M0 298q110 54 220 0"
        fill="none"
        stroke="var(--color-titrant-edge)"
        strokeWidth="2"
      />
      {marks.map((i) => (
        <path
          key={i}
          d={`M0 ${String(10 + i * 15)}h${i % 10 === 0 ? '120' : i % 5 === 0 ? '84' : '56'}`}
          stroke="var(--color-ink)"
          strokeWidth={i % 10 === 0 ? 2.2 : 1.2}
        />
      ))}
      {[0, 1, 2, 3, 4, 5].map((i) => (
        <text
          key={i}
          x="134"
          y={18 + i * 150}
          fontSize="26"
          fontFamily="var(--font-mono)"
          fill="var(--color-ink)"
        >
          {i + 21}
        </text>
      ))}
    </svg>
  );
}
