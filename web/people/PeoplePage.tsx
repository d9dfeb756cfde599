import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import type { PersonState } from '#core/people';
import { may, ROLE_TABLE } from '#core/rights';
import { newPersonSchema } from '#contract';
import { tell } from '../app/api';
import { useAddToRecord } from '../app/entering';
import { Loading } from '../app/Loading';
import { NotAllHere } from '../app/NotAllHere';
import { useRecords } from '../app/records';
import { useSession } from '../app/session';
import { useReadAnew } from '../app/useReadAnew';
import { Asking } from '../ui/Asking';
import { AskingWhy } from '../ui/AskingWhy';
import { Button } from '../ui/Button';
import { TextField } from '../ui/fields';
import { Form, FormFoot } from '../ui/Form';
import { Page } from '../ui/Page';
import { Table } from '../ui/Table';
import { dateText, instantText } from '../ui/typeset';
import { useContractForm } from '../ui/useContractForm';
import { PersonDialog } from './PersonDialog';
import { RolesFields } from './RolesFields';

/** Names that differ in nothing that can be seen; such accounts are of before names were compared like that. */
function sameNames(people: readonly PersonState[]): readonly (readonly string[])[] {
  const keys = new Set(people.map(({ nameKey }) => nameKey));
  return [...keys]
    .map((key) => people.filter(({ nameKey }) => nameKey === key))
    .filter((group) => group.length > 1)
    .map((group) => group.map(({ name }) => name));
}

/** Who works here, and what they may. */
export function PeoplePage() {
  const { person } = useSession();
  const people = useRecords('person');
  const [isAdding, setAdding] = useState(false);
  if (!people) return <Loading />;
  const mayManage = may(person, 'manage-people');
  return (
    <Page
      title="People"
      tabTitle="People"
      lead="Everybody reads everything; what else somebody may comes with their roles"
      actions={
        mayManage &&
        !isAdding && (
          <Button
            look="primary"
            onClick={() => {
              setAdding(true);
            }}
          >
            Add a person
          </Button>
        )
      }
    >
      {isAdding && (
        <PersonForm
          onDone={() => {
            setAdding(false);
          }}
        />
      )}
      {mayManage && <HardlyToldApart people={people} />}
      <NotAllHere kind="person" what="people" />
      <Table
        caption="People"
        heads={mayManage ? ['Name', 'Roles', 'Here', 'Change'] : ['Name', 'Roles', 'Here']}
        rows={people
          .toSorted((a, b) => Number(a.left !== null) - Number(b.left !== null))
          .map((one) => ({
            key: one.id,
            cells: [
              <b key="n">{one.name}</b>,
              rolesText(one),
              <Stay key="s" person={one} />,
              ...(mayManage
                ? [<Changes key="c" person={one} isOneself={one.id === person.id} />]
                : []),
            ],
          }))}
      />
    </Page>
  );
}

function HardlyToldApart({ people }: { readonly people: readonly PersonState[] }) {
  return sameNames(people).map((names) => (
    <p key={names.join()} role="status" className="mb-4 border-l-4 border-straw pl-3">
      <b>{names.join(' and ')}</b> are hard to tell apart. Each signs in by the exact spelling:
      rename one of them.
    </p>
  ));
}

function rolesText({ roles, auditsUntil, left }: PersonState): string {
  if (left) return 'none any more';
  const names = roles.map((role) => ROLE_TABLE[role].name).join(', ');
  return auditsUntil === null ? names || 'none: reads' : `${names} until ${dateText(auditsUntil)}`;
}

/** Since when somebody works here, or until when they did. */
function Stay({ person: { joined, left } }: { readonly person: PersonState }) {
  const { laboratory } = useSession();
  return left ? (
    <span className="text-ink-soft">
      left {instantText(left.at, laboratory.timeZone)}: {left.reason}
    </span>
  ) : (
    <>since {instantText(joined.at, laboratory.timeZone)}</>
  );
}

interface ChangesProps {
  readonly person: PersonState;
  readonly isOneself: boolean;
}

/** What may be done about somebody. */
function Changes({ person, isOneself }: ChangesProps) {
  return (
    <span className="-my-1 flex flex-wrap gap-x-4">
      <Asking look="link" button="Name and roles…" aria-label={`Change ${person.name}`}>
        {(close) => <PersonDialog person={person} onClose={close} />}
      </Asking>
      {!isOneself && <StaySwitch person={person} />}
    </span>
  );
}

/** Closes somebody's account, or opens it again. */
function StaySwitch({ person }: { readonly person: PersonState }) {
  const add = useAddToRecord();
  const { id: recordId, version: basedOn, name, left } = person;
  const kind = left ? 'person.returned' : 'person.left';
  return (
    <AskingWhy
      look="link"
      button={left ? 'Come back…' : 'Close the account…'}
      aria-label={left ? `Let ${name} come back` : `Close the account of ${name}`}
      question={{
        ...(left
          ? {
              title: `Let ${name} come back?`,
              description: 'They sign in with the password they had, and have the roles they had.',
              confirm: 'Open the account',
            }
          : {
              title: `Close the account of ${name}?`,
              description:
                'They are signed out everywhere and sign nothing more. What they did stays under their name.',
              confirm: 'Close the account',
            }),
        onConfirm: (reason) =>
          add.mutateAsync({ recordId, basedOn, fact: { kind, body: { reason } } }),
      }}
    />
  );
}

/** An account needs the server: a password is never kept on a device. */
function PersonForm({ onDone }: { readonly onDone: () => void }) {
  const readAnew = useReadAnew();
  const add = useMutation({
    mutationFn: (body: object) => tell('POST', '/people', body),
    onSuccess: readAnew,
  });
  const { form, field, errorAt, showFailure, formError } = useContractForm(newPersonSchema, {
    name: '',
    password: '',
    roles: ['analyst'],
    auditsUntil: null,
  });
  return (
    <Form
      aria-label="A new person"
      className="mb-8 grid max-w-3xl grid-cols-1 gap-x-6 gap-y-4 border-b border-rule pb-6 md:grid-cols-2"
      onSubmit={form.handleSubmit((body) => {
        add.mutate(body, { onSuccess: onDone, onError: showFailure });
      })}
    >
      <TextField label="Name" autoComplete="off" {...field('name')} />
      <TextField
        label="First password"
        type="password"
        autoComplete="new-password"
        hint="At least 10 characters."
        {...field('password')}
      />
      <div className="col-span-full">
        <RolesFields
          value={{ roles: form.watch('roles'), auditsUntil: form.watch('auditsUntil') }}
          error={errorAt('auditsUntil')}
          onChange={({ roles, auditsUntil }) => {
            form.setValue('roles', [...roles]);
            form.setValue('auditsUntil', auditsUntil);
          }}
        />
      </div>
      <FormFoot
        submit="Add the person"
        isDisabled={add.isPending}
        error={formError}
        onLeave={onDone}
      />
    </Form>
  );
}
