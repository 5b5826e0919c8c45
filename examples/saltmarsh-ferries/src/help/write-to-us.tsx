import { rig } from '@saltmarsh/formrig';

export default function WriteToUs() {
  const form = rig({ text: '', mail: '' });
  return (
    <form class="write" id="contact">
      <textarea name="text">{form.values.text}</textarea>
      <input type="email" name="mail" />
      <button type="submit">Send</button>
    </form>
  );
}
