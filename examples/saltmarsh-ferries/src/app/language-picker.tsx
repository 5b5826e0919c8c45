import { useCell } from '@saltmarsh/view';
import { write } from '../shared/storage';

const LANGUAGES = { en: 'English', nl: 'Nederlands', da: 'Dansk', de: 'Deutsch' };

export function LanguagePicker() {
  const [language, setLanguage] = useCell('en');
  return (
    <select class="language" aria-label="Language" value={language} onChange={(event: Event) => {
      const { value } = event.target as HTMLSelectElement;
      write('language', value);
      setLanguage(value);
    }}>
      {Object.entries(LANGUAGES).map(([code, name]) => <option value={code}>{name}</option>)}
    </select>
  );
}
