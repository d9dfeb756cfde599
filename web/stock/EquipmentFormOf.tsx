import type { Equipment } from '#core/metrology';
import { BalanceForm } from './BalanceForm';
import { BuretteForm } from './BuretteForm';
import type { EquipmentFormProps } from './equipmentForm';
import { GlasswareForm } from './GlasswareForm';
import { HeaterForm } from './HeaterForm';
import { ThermometerForm } from './ThermometerForm';

/** The form of a kind of equipment. */
export function EquipmentFormOf({
  type,
  ...props
}: EquipmentFormProps & { readonly type: Equipment['type'] }) {
  switch (type) {
    case 'balance':
      return <BalanceForm {...props} />;
    case 'burette':
      return <BuretteForm {...props} />;
    case 'glassware':
      return <GlasswareForm {...props} />;
    case 'thermometer':
      return <ThermometerForm {...props} />;
    case 'heater':
      return <HeaterForm {...props} />;
  }
}
