import { useEffect, useRef, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { Signal } from '../Signal.tsx';
import { useSurface } from '../theme.ts';
import { readFrames } from './readFrames.ts';

const HIGH = 140;

/** What the camera sees, and a line to hold a code to. Codes are read as long as it is shown. */
export default function CameraStrip({ onCode }: { onCode: (code: string) => void }) {
  const { t } = useTranslation();
  const surface = useSurface();
  const video = useRef<HTMLVideoElement>(null);
  const [trouble, setTrouble] = useState<'refused' | 'none' | 'blind' | null>(null);
  const heard = useRef(onCode);
  useEffect(() => {
    heard.current = onCode;
  });
  useEffect(() => {
    let over = false;
    let stop = () => {};
    const begin = async () => {
      const stream = await navigator.mediaDevices.getUserMedia({
        video: { facingMode: 'environment', width: { ideal: 1280 } },
      });
      const end = () => stream.getTracks().forEach((track) => track.stop());
      const shown = video.current;
      if (over || !shown) return end();
      shown.srcObject = stream;
      await shown.play();
      const quiet = readFrames(
        shown,
        (code) => heard.current(code),
        () => {
          stop();
          setTrouble('blind');
        },
      );
      stop = () => {
        quiet();
        end();
      };
      if (over) stop();
    };
    begin().catch((error: unknown) => {
      if (!over) setTrouble((error as Error).name === 'NotAllowedError' ? 'refused' : 'none');
    });
    return () => {
      over = true;
      stop();
    };
  }, []);
  if (trouble) return <Signal kind="caution" size="body" text={t(`scan.camera.${trouble}`)} />;
  return (
    <View
      role="img"
      aria-label={t('scan.camera.sees')}
      style={{ height: HIGH, borderRadius: 4, overflow: 'hidden', backgroundColor: '#000000' }}
    >
      <video
        ref={video}
        muted
        playsInline
        style={{ width: '100%', height: '100%', objectFit: 'cover', display: 'block' }}
      />
      <View
        style={{
          position: 'absolute',
          left: '10%',
          right: '10%',
          top: HIGH / 2 - 1,
          height: 2,
          backgroundColor: surface.act,
        }}
      />
    </View>
  );
}
