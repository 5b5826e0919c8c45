import { useCell } from '@saltmarsh/view';
import { messages } from '../shared/messages';
import { MenuIcon } from '../shared/icons';

export default function NarrowMenu() {
  const [open, setOpen] = useCell(false);
  return (
    <div>
      <button type="button" aria-expanded={open} onClick={() => setOpen(!open)}><MenuIcon /> {messages.menu}</button>
      {open ? (
        <div class="narrow-menu">
          <a href="/timetable">{messages.timetable}</a>
          <a href="/book">{messages.book}</a>
          <a href="/trips">{messages.trips}</a>
          <a href="/harbour">{messages.harbour}</a>
          <a href="/help">{messages.help}</a>
        </div>
      ) : null}
    </div>
  );
}
