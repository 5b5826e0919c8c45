import { index, layout, prefix, route, type RouteConfig } from '@react-router/dev/routes';

const fish = [route('ladder', './fish/ladder.tsx'), route('ladder/:day', './fish/day.tsx')];

export default [
  index('./home.tsx'),
  layout('./water/frame.tsx', [
    route('levels', './water/levels.tsx', [index('./water/today.tsx'), route(':day', './water/day.tsx')]),
  ]),
  ...prefix('fish', fish),
  route('*', './lost.tsx'),
] satisfies RouteConfig;
