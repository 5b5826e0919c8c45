import { messages } from '../shared/messages';

export default function TideNote() {
  return <p>{messages.tide}: low water cancels the Ebb Skerry crossing.</p>;
}
