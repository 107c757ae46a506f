import { useState } from 'react';
import { Picker } from '../../../kit/picker.tsx';
import { useSites } from '../directory-api.ts';

interface SitePickerProps {
  readonly siteId: string | null;
  readonly siteName: string | null;
  /** What it is called to have none. */
  readonly none: string;
  readonly onChoose: (siteId: string | null) => void;
}

const NONE = '';

/** One of the workspace's sites, looked up as it is typed. */
export function SitePicker({ siteId, siteName, none, onChoose }: SitePickerProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [chosen, setChosen] = useState({ id: siteId, name: siteName });
  const name = chosen.id === siteId ? (chosen.name ?? siteName) : siteName;
  const { data: found, isLoading, error } = useSites(typed);
  return (
    <Picker
      label="Site"
      chosen={siteId ?? NONE}
      chosenName={siteId === null ? none : (name ?? '…')}
      options={[
        { key: NONE, name: none },
        ...(found?.assets ?? []).map(({ id, name, place }) => ({ key: id, name, detail: place })),
      ]}
      onType={setTyped}
      isLooking={isLoading}
      trouble={error?.message}
      onChoose={(key) => {
        const site = found?.assets.find(({ id }) => id === key);
        setChosen({ id: site?.id ?? null, name: site?.name ?? null });
        onChoose(site?.id ?? null);
      }}
    />
  );
}
