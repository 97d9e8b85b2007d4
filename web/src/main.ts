import { bootstrapApplication } from '@angular/platform-browser';
import { AppComponent } from './app/shell/app.component';
import { appConfig } from './app/shell/app.config';

bootstrapApplication(AppComponent, appConfig).catch((error: unknown) => {
  // Nothing of the application runs yet that could show this better.
  document.body.textContent = `Wild Needle could not start: ${String(error)}`;
});
