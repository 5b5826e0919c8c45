import React, { useEffect } from 'react';
import { useDispatch, useSelector } from 'react-redux';
import Sack from '../Sack';
import { loadFlours } from '../store/flours';

export default function Flours() {
  const dispatch = useDispatch();
  const flours = useSelector((s) => s.flours.all);
  useEffect(() => {
    dispatch(loadFlours());
  }, [dispatch]);
  return (
    <ul>
      {flours.map((f) => (
        <Sack key={f.id} flour={f} />
      ))}
    </ul>
  );
}
