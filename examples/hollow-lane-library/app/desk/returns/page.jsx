import { useState } from '#kit';
import { ReturnsTray } from '../../../parts/desk/returns-tray.jsx';
import { DamageReport } from '../../../parts/desk/damage-report.jsx';
import { LabelSheet } from '../../../parts/desk/label-sheet.jsx';

export default function Returns() {
  const [step, setStep] = useState('tray');
  const onDamage = () => setStep('damage');
  switch (step) {
    case 'damage':
      return <DamageReport onBack={() => setStep('tray')} />;
    case 'labels':
      return <LabelSheet onBack={() => setStep('tray')} />;
    case 'tray':
      return (
        <main>
          <ReturnsTray onDamage={onDamage} />
          <button type="button" onClick={onDamage}>Report damage</button>
          <button type="button" onClick={() => setStep('labels')}>Print labels</button>
        </main>
      );
  }
}
