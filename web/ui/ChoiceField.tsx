import type { ReactNode } from 'react';
import { useId } from 'react';
import {
  Autocomplete,
  Button,
  Input,
  Label,
  ListBox,
  ListBoxItem,
  Popover,
  SearchField,
  Select,
  SelectValue,
  useFilter,
} from 'react-aria-components';
import type { FieldProps } from './fields';
import { FieldNote, notedBy } from './fields';

/** One of the things to choose from. */
export interface Choice {
  readonly id: string;
  readonly name: ReactNode;
  /** The name as it is typed to find it, and as it is read out. */
  readonly text: string;
  /** What tells it from the others: a molarity, what is left, what it is good for. */
  readonly words: string;
}

interface ChoiceFieldProps extends FieldProps {
  readonly label: string;
  readonly items: readonly Choice[];
  readonly chosenId: string;
  readonly onChoose: (id: string) => void;
}

/** From this many on, they are searched. */
const SEARCHED_FROM = 6;

/** One of several records, each in two lines, found by any part of either. */
export function ChoiceField({ items, chosenId, onChoose, ...frame }: ChoiceFieldProps) {
  const id = useId();
  const { label, error } = frame;
  const { contains } = useFilter({ sensitivity: 'base' });
  const list = (
    <ListBox items={items} className="min-h-0 flex-1 overflow-y-auto outline-none">
      {(item) => (
        <ListBoxItem
          id={item.id}
          textValue={`${item.text}, ${item.words}`}
          className="cursor-pointer rounded px-3 py-1.5 outline-none data-focused:bg-violet data-focused:text-on-violet data-selected:font-semibold"
        >
          <TwoLines item={item} />
        </ListBoxItem>
      )}
    </ListBox>
  );
  return (
    <Select
      value={chosenId}
      isInvalid={error !== undefined}
      onChange={(key) => {
        if (typeof key === 'string') onChoose(key);
      }}
      {...notedBy(id, frame)}
    >
      <Label className="mb-1 block font-semibold">{label}</Label>
      <Button
        className={`flex min-h-14 w-full items-center justify-between gap-3 rounded-md bg-sheet px-3 py-1 text-left text-ink outline-violet data-focus-visible:outline-3 data-focus-visible:outline-offset-2 ${error === undefined ? 'border border-rule-strong' : 'border-2 border-blush'}`}
      >
        <SelectValue className="min-w-0">
          {() => {
            const chosen = items.find((item) => item.id === chosenId);
            return chosen && <TwoLines item={chosen} />;
          }}
        </SelectValue>
        <span aria-hidden="true" className="text-ink-soft">
          ▾
        </span>
      </Button>
      <FieldNote id={id} {...frame} />
      <Popover
        maxHeight={460}
        className="flex w-(--trigger-width) min-w-[min(22rem,90vw)] flex-col rounded-md border border-rule-strong bg-sheet p-1 text-ink shadow-xl"
      >
        {items.length < SEARCHED_FROM ? (
          list
        ) : (
          <Autocomplete filter={contains}>
            {/* eslint-disable-next-line jsx-a11y/no-autofocus -- what was opened is a list to search: one types at once */}
            <SearchField aria-label={`Find: ${label}`} autoFocus>
              <Input
                placeholder="any part of it"
                className="mb-1 min-h-12 w-full rounded border border-rule-strong bg-sheet px-3 text-lg outline-violet [&::-webkit-search-cancel-button]:hidden"
              />
            </SearchField>
            {list}
          </Autocomplete>
        )}
      </Popover>
    </Select>
  );
}

function TwoLines({ item: { name, words } }: { readonly item: Choice }) {
  return (
    <>
      <span className="block text-lg leading-tight">{name}</span>
      {words !== '' && <span className="block text-sm leading-tight opacity-85">{words}</span>}
    </>
  );
}
