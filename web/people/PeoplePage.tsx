import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { Person } from '#contract';
import { nameKey, newPersonSchema } from '#contract';
import { ask } from '../app/api';
import { Loading } from '../app/Loading';
import { usePeople } from '../app/records';
import { useSession } from '../app/session';
import { Button } from '../ui/Button';
import { CheckField, TextField } from '../ui/fields';
import { FormError } from '../ui/FormError';
import { Page } from '../ui/Page';
import { Table } from '../ui/Table';
import { useContractForm } from '../ui/useContractForm';

/** Names that differ in nothing that can be seen; such accounts are of before names were compared like that. */
function sameNames(people: readonly Person[]): readonly (readonly string[])[] {
  const keys = new Set(people.map(({ name }) => nameKey(name)));
  return [...keys]
    .map((key) => people.filter(({ name }) => nameKey(name) === key))
    .filter((group) => group.length > 1)
    .map((group) => group.map(({ name }) => name));
}

/** Who works here and what they may sign. */
export function PeoplePage() {
  const { person } = useSession();
  const people = usePeople();
  const [isAdding, setAdding] = useState(false);
  if (!people) return <Loading />;
  return (
    <Page
      title="People"
      tabTitle="People"
      lead="Everybody may prepare, titrate and judge; signing a certificate takes the right to"
      actions={
        person.mayManage &&
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
      {person.mayManage &&
        sameNames(people).map((names) => (
          <p key={names.join()} role="status" className="mb-4 border-l-4 border-straw pl-3">
            <b>{names.join(' and ')}</b> are hardly told apart. Each signs in by the exact spelling;
            add a new account under another name for one of them.
          </p>
        ))}
      <Table
        caption="People"
        heads={['Name', 'May certify', 'May manage']}
        rows={people.map(({ id, name, mayCertify, mayManage }) => ({
          key: id,
          cells: [<b key="n">{name}</b>, mayCertify ? 'yes' : 'no', mayManage ? 'yes' : 'no'],
        }))}
      />
    </Page>
  );
}

function PersonForm({ onDone }: { readonly onDone: () => void }) {
  const client = useQueryClient();
  const add = useMutation({
    mutationFn: (body: object) => ask('POST', '/people', body),
    onSuccess: () => client.invalidateQueries({ queryKey: ['people'] }),
  });
  const { form, field, showFailure, formError } = useContractForm(newPersonSchema, {
    name: '',
    password: '',
    mayCertify: false,
    mayManage: false,
  });
  return (
    <form
      noValidate
      aria-label="A new person"
      className="mb-8 grid max-w-3xl gap-x-6 gap-y-4 border-b border-rule pb-6 md:grid-cols-2"
      onSubmit={(event) =>
        void form.handleSubmit((body) => {
          add.mutate(body, { onSuccess: onDone, onError: showFailure });
        })(event)
      }
    >
      <TextField label="Name" autoComplete="off" {...field('name')} />
      <TextField
        label="First password"
        type="password"
        autoComplete="new-password"
        hint="At least 10 characters."
        {...field('password')}
      />
      <CheckField label="May certify molarities" {...form.register('mayCertify')} />
      <CheckField
        label="May manage the laboratory"
        hint="People, house rules and methods; a run by other rules than those in force."
        {...form.register('mayManage')}
      />
      <div className="flex items-center gap-3 md:col-span-2">
        <Button type="submit" look="primary" disabled={add.isPending}>
          Add the person
        </Button>
        <Button onClick={onDone}>Leave it</Button>
        <FormError message={formError} />
      </div>
    </form>
  );
}
