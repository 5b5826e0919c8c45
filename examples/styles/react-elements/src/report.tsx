export function YearlyReport() {
  return <table />;
}
