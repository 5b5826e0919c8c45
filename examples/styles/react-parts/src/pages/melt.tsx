import { useReducer, useState, useTransition } from 'react';
import { Editor } from '../editor';
import { Slag } from '../slag';
import { Toast } from '../toast';
import { StepOne } from '../a';
import { StepTwo } from '../b';
import { StepThree } from '../c';
import { useInView } from '../in-view';
import { useStore } from '../store';
function Steps({ step }: { step: number }) { if (step === 0) return <StepOne />; if (step === 1) return <StepTwo />; return <StepThree />; }
export default function Melt() {
  const [step, setStep] = useState(0);
  const [state, dispatch] = useReducer((s: any, a: any) => a, { mode: 'view' });
  const [ref, inView] = useInView();
  const { toast, showToast } = useStore();
  return <div>
    <Steps step={step} /><button onClick={() => setStep(step + 1)}>Next step</button>
    {state.mode === 'edit' ? <Editor /> : <button onClick={() => dispatch({ mode: 'edit' })}>Edit the melt</button>}
    <div ref={ref}>{inView && <Slag />}</div>
    <button onClick={() => showToast('x')}>Notify</button>
    {toast && <Toast />}
  </div>;
}
