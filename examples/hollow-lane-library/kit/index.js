// The least of a component system, so that this tree needs nothing from outside.
export function useState(first) {
  return [first, () => {}];
}
export function useReducer(reduce, first) {
  return [first, (action) => reduce(first, action)];
}
export const useCallback = (work) => work;
export const useEffect = (work) => work();
export const useRef = (current) => ({ current });
export function loaded(load) {
  return function Loaded(props) {
    load();
    return props.waiting ?? null;
  };
}
