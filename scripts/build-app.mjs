// Builds the app for those who do something else meanwhile.
import { buildApp } from './steps.mjs';

buildApp();
