"use client";
export const ReturnsTray = ({ onDamage }) => <ul><li>Moss and Mortar <button type="button" onClick={onDamage}>It is torn</button></li></ul>;
