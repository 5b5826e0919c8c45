export interface Topic {
  title: string;
  text: string;
}
export const TOPICS: Topic[] = [
  { title: 'When must I be at the slip?', text: 'Twenty minutes before departure on foot, forty with a vehicle.' },
  { title: 'May I bring a dog?', text: 'Yes, on a lead, on the open deck and in the rear saloon.' },
  { title: 'What if the tide is too low?', text: 'We move you to the next crossing, free of charge.' },
  { title: 'Can I change my trip?', text: 'Until two hours before departure, under My trips.' },
];
