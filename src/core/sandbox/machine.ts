/** Starts the WebAssembly module of a machine. Each call gives a fresh one, since snapshots need it to themselves. */
import variant from '@jitl/quickjs-wasmfile-release-sync';
import { newQuickJSWASMModuleFromVariant, type QuickJSWASMModule } from 'quickjs-emscripten-core';

export function startMachine(): Promise<QuickJSWASMModule> {
  return newQuickJSWASMModuleFromVariant(variant);
}
