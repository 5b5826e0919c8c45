import './booking.css';
import { rig } from '@saltmarsh/formrig';
import { useCell, later } from '@saltmarsh/view';
import { go } from '@saltmarsh/wayfinder';
import { fareFor } from '../fares/fare-rules';
import { money } from '../shared/format';
import { Steps } from './steps';
import { PassengerFields } from './passenger-fields';
import { VehicleChoice } from './vehicle-choice';
import { CabinChoice } from './cabin-choice';

const Payment = later(() => import('./payment'));

export default function BookingPage() {
  const form = rig({ adults: 1, children: 0, vehicle: 'none', cabin: 'none' });
  const [step, setStep] = useCell(0);
  return (
    <main class="booking">
      <Steps at={step} />
      {step === 0 ? <PassengerFields form={form} /> : null}
      {step === 1 ? <VehicleChoice form={form} /> : null}
      {step === 2 ? <CabinChoice form={form} /> : null}
      {step === 3 ? <Payment total={fareFor(form.values)} onPaid={() => go('/trips')} /> : null}
      <p>{money(fareFor(form.values))}</p>
      <button type="button" onClick={() => setStep(step + 1)}>Next</button>
    </main>
  );
}
