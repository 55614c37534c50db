/** The methods by which the state of a map is written, for tests that look at what is asked of it; fresh before each test. */
export function mapMethods() {
  const methods = {
    describe: jest.fn(),
    moveNodes: jest.fn(),
    plan: jest.fn(),
    undo: jest.fn(),
    redo: jest.fn(),
    selectNode: jest.fn(),
    chooseNodes: jest.fn(),
    selectTie: jest.fn(),
    selectCommunity: jest.fn(),
    markMessage: jest.fn(),
    clearSelection: jest.fn(),
    lookAt: jest.fn(),
    resize: jest.fn(),
    beginDrawing: jest.fn(),
    endDrawing: jest.fn(),
    passTo: jest.fn(),
    emphasise: jest.fn(),
  };
  beforeEach(() => {
    for (const method of Object.values(methods)) method.mockReset();
  });
  return methods;
}
