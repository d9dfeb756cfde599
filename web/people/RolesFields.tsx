import type { Given } from '#core/people';
import type { Role } from '#core/rights';
import { ROLE_TABLE, ROLES } from '#core/rights';
import { DateField } from '../ui/DateField';
import { CheckField } from '../ui/fields';

/** What somebody is given, as it is typed. */
export interface TypedRoles extends Pick<Given, 'roles'> {
  readonly auditsUntil: string | null;
}

/** What somebody is here, a box for each role; for an auditor, until when. */
export function RolesFields({
  value: { roles, auditsUntil },
  error,
  onChange,
}: {
  readonly value: TypedRoles;
  readonly error?: string | undefined;
  readonly onChange: (value: TypedRoles) => void;
}) {
  /** An auditor is nothing else beside. */
  const withRole = (changed: Role, isGiven: boolean): TypedRoles => {
    const chosen = ROLES.filter((one) => (one === changed ? isGiven : roles.includes(one)));
    return changed === 'auditor' && isGiven
      ? { roles: ['auditor'], auditsUntil: auditsUntil ?? '' }
      : { roles: chosen.filter((one) => one !== 'auditor'), auditsUntil: null };
  };
  return (
    <fieldset className="flex flex-col gap-3">
      <legend className="mb-2 font-semibold">Roles</legend>
      <div className="grid grid-cols-1 gap-x-6 gap-y-3 md:grid-cols-2">
        {ROLES.map((role) => (
          <CheckField
            key={role}
            label={ROLE_TABLE[role].name}
            hint={ROLE_TABLE[role].means}
            checked={roles.includes(role)}
            onChange={(event) => {
              onChange(withRole(role, event.target.checked));
            }}
          />
        ))}
      </div>
      {auditsUntil !== null && (
        <DateField
          label="Reads until"
          value={auditsUntil}
          error={error}
          onText={(date) => {
            onChange({ roles, auditsUntil: date });
          }}
        />
      )}
    </fieldset>
  );
}
