// Every button names its key in data-key; a keyboard, a pedal or a clicker presses it.
addEventListener('keydown', (e) => {
  if (e.ctrlKey || e.metaKey || e.altKey || e.repeat) return;
  const field = e.target.closest?.('input, select, textarea');
  const radio = field && ['radio', 'checkbox'].includes(field.type);
  if (e.key === 'Enter' && (field && !radio || e.target.closest?.('a, button, summary'))) return;
  if (field && !radio && e.key !== 'Escape') return;
  const wanted = e.key.length === 1 ? e.key.toLowerCase() : e.key;
  const button = [...document.querySelectorAll('[data-key]')].find((b) => b.dataset.key === wanted);
  if (!button) return;
  e.preventDefault();
  button.click();
});
