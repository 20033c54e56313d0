import { Ground, SignIn } from '../shell/index.ts';

export default function SignInRoute() {
  return (
    <Ground surface="floor">
      <SignIn />
    </Ground>
  );
}
