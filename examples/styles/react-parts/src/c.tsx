export function StepThree(p: any) { return <div {...p}>StepThree</div>; }
