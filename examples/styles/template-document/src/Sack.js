import React from 'react';

export default function Sack({ flour }) {
  return <li>{flour.name}</li>;
}
