import { Modal } from 'antd';
import { SignInForm } from './SignIn';

/** Laid over the page whose sign-in has lapsed, so that what was typed stays. */
export default function Lapsed({ onDone }: { onDone: () => void }) {
  return (
    <Modal title="Your sign-in has lapsed" open footer={null} closable={false}>
      <p>What you typed is still here. Sign in and send it again.</p>
      <SignInForm onDone={onDone} />
    </Modal>
  );
}
