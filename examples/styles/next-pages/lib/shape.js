export const shape = (all) => all.map((bell) => ({ ...bell, shaped: true }));
