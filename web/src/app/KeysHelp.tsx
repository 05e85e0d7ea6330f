import { Dialog } from '@mui/material';
import { keyInWords, useListedShortcuts } from '../base/shortcuts.ts';

export default function KeysHelp({ onClose }: { onClose: () => void }) {
  const groups = useListedShortcuts();
  return (
    <Dialog open onClose={onClose} aria-label="Keys of this screen">
      <div style={{ padding: 18, minWidth: 300 }}>
        {groups.map((group) => (
          <section key={group.title} style={{ marginBottom: 14 }}>
            <h2 className="sec">{group.title}</h2>
            <table className="grid">
              <tbody>
                {group.keys.map((k) => (
                  <tr key={k.key}>
                    <td style={{ width: 90 }}>
                      <kbd>{keyInWords(k.key)}</kbd>
                    </td>
                    <td>{k.does}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        ))}
        <p className="soft">Esc closes this.</p>
      </div>
    </Dialog>
  );
}
