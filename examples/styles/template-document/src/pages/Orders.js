import React from 'react';

export default function Orders() {
  return <p>Orders</p>;
}
