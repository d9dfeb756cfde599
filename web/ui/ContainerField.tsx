import type { ComponentProps } from 'react';
import { SelectField } from './fields';

/** What a bottle is made of. */
export function ContainerField(
  props: Omit<ComponentProps<typeof SelectField>, 'label' | 'children'>,
) {
  return (
    <SelectField label="Bottle" {...props}>
      <option value="plastic">plastic</option>
      <option value="brown-glass">brown glass</option>
      <option value="clear-glass">clear glass</option>
    </SelectField>
  );
}
