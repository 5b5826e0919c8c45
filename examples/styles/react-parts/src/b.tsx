export function StepTwo(p: any) { return <div {...p}>StepTwo</div>; }
