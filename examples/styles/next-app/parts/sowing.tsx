'use client';

export const Sowing = ({ list = [] }) => <ul>{list.length}</ul>;
