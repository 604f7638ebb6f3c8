/** The part of Alpine that the Bench uses. */
declare const Alpine: {
  store(name: string, value?: any): any;
  data(name: string, make: () => Record<string, any>): void;
  directive(name: string, callback: (element: any, value: any, tools: any) => void): void;
  mutateDom(change: () => void): void;
  start(): void;
};
export default Alpine;
