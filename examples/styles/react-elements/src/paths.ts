const ALL = '/birds';

export const paths = {
  birds: { all: ALL, one: `${ALL}/:id` },
} as const;
