import { createAsyncThunk } from '@reduxjs/toolkit';

const fetchFlours = () => fetch('/api/flours').then((r) => r.json());

export const loadFlours = createAsyncThunk('flours/load', fetchFlours);
