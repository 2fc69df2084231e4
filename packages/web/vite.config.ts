import babel from '@rolldown/plugin-babel'
import react, { reactCompilerPreset } from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  // The compiler keeps what a component made for the same input: a press on one row paints that row, not the frame around it.
  plugins: [react(), babel({ presets: [reactCompilerPreset()] })],
  build: { target: 'es2022', sourcemap: false, chunkSizeWarningLimit: 900, assetsInlineLimit: 0 },
})
