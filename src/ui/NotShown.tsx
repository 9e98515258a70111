import { Button, Result } from 'antd';

type Props = { title: string; why: string; isMissing?: boolean; again?: (() => void) | undefined };

/** What is shown in place of a page that cannot be, with the ways on from there. */
export const NotShown = ({ title, why, isMissing = false, again }: Props) => (
  <Result
    status={isMissing ? '404' : 'warning'}
    title={title}
    subTitle={why}
    extra={[
      ...(again
        ? [
            <Button key="again" type="primary" onClick={again}>
              Try again
            </Button>,
          ]
        : []),
      <Button key="home" href="/">
        All drawings
      </Button>,
    ]}
  />
);
