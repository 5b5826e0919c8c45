import { Redirect, Route } from 'react-router-dom';

export function KeyRoute({ component: Page, ...rest }) {
  return document.cookie.includes('key') ? <Route {...rest} render={() => <Page />} /> : <Redirect to="/" />;
}
