import { WaveIcon } from '../shared/icons';
import { windWord } from './wind';

export default function WeatherStrip() {
  return <p class="weather"><WaveIcon /> Wind {windWord(5)}, sea slight</p>;
}
