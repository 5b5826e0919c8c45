export function StepOne(p: any) { return <div {...p}>StepOne</div>; }
