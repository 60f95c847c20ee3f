// ../../tmp/bj.mts
import { readFileSync } from "node:fs";

// node_modules/flatqueue/index.js
var FlatQueue = class {
  /**
   * Creates an empty queue. If `capacity` is provided, the queue is backed by fixed-size typed
   * arrays for better performance and memory use, but can't grow beyond `capacity`. `values` uses
   * `ValuesArray` (default `Float64Array`) and `ids` uses `IdsArray` (default `Uint32Array`); pass
   * narrower constructors like `Uint16Array` if your values or ids are known to fit them.
   *
   * @param {number} [capacity]
   * @param {TypedArrayConstructor} [ValuesArray]
   * @param {TypedArrayConstructor} [IdsArray]
   */
  constructor(capacity = Infinity, ValuesArray = Float64Array, IdsArray = Uint32Array) {
    const fixed = capacity !== Infinity;
    this.ids = fixed ? (
      /** @type {T[]} */
      /** @type {unknown} */
      new IdsArray(capacity)
    ) : [];
    this.values = fixed ? (
      /** @type {number[]} */
      /** @type {unknown} */
      new ValuesArray(capacity)
    ) : [];
    this.capacity = capacity;
    this.length = 0;
  }
  /** Removes all items from the queue. */
  clear() {
    this.length = 0;
  }
  /**
   * Adds `item` to the queue with the specified `priority`.
   *
   * `priority` must be a number. Items are sorted and returned from low to high priority. Multiple items
   * with the same priority value can be added to the queue, but there is no guaranteed order between these items.
   *
   * For fixed-capacity queues, throws a `RangeError` if the queue is already full.
   *
   * @param {T} item
   * @param {number} priority
   */
  push(item, priority) {
    if (this.length === this.capacity) throw new RangeError("Queue is at capacity.");
    let pos = this.length++;
    while (pos > 0) {
      const parent = pos - 1 >> 1;
      const parentValue = this.values[parent];
      if (priority >= parentValue) break;
      this.ids[pos] = this.ids[parent];
      this.values[pos] = parentValue;
      pos = parent;
    }
    this.ids[pos] = item;
    this.values[pos] = priority;
  }
  /**
   * Removes and returns the item from the head of this queue, which is one of
   * the items with the lowest priority. If this queue is empty, returns `undefined`.
   */
  pop() {
    if (this.length === 0) return void 0;
    const ids = this.ids, values = this.values, top = ids[0], last = --this.length;
    if (last > 0) {
      const id = ids[last];
      const value = values[last];
      let pos = 0;
      const halfLen = last >> 1;
      while (pos < halfLen) {
        const left = (pos << 1) + 1;
        const right = left + 1;
        const child = left + (+(right < last) & +(values[right] < values[left]));
        if (values[child] >= value) break;
        ids[pos] = ids[child];
        values[pos] = values[child];
        pos = child;
      }
      ids[pos] = id;
      values[pos] = value;
    }
    return top;
  }
  /** Returns the item from the head of this queue without removing it. If this queue is empty, returns `undefined`. */
  peek() {
    return this.length > 0 ? this.ids[0] : void 0;
  }
  /**
   * Returns the priority value of the item at the head of this queue without
   * removing it. If this queue is empty, returns `undefined`.
   */
  peekValue() {
    return this.length > 0 ? this.values[0] : void 0;
  }
  /**
   * Shrinks the internal arrays to `this.length`. No-op for queues with fixed capacity.
   *
   * `pop()` and `clear()` calls don't free memory automatically to avoid unnecessary resize operations.
   * This also means that items that have been added to the queue can't be garbage collected until
   * a new item is pushed in their place, or this method is called.
   */
  shrink() {
    if (Array.isArray(this.ids)) this.ids.length = this.length;
    if (Array.isArray(this.values)) this.values.length = this.length;
  }
};

// node_modules/flatbush/index.js
var ARRAY_TYPES = [Int8Array, Uint8Array, Uint8ClampedArray, Int16Array, Uint16Array, Int32Array, Uint32Array, Float32Array, Float64Array];
var VERSION = 3;
var Flatbush = class _Flatbush {
  /**
   * Recreate a Flatbush index from raw `ArrayBuffer` or `SharedArrayBuffer` data.
   * @param {ArrayBufferLike} data
   * @param {number} [byteOffset=0] byte offset to the start of the Flatbush buffer in the referenced ArrayBuffer.
   * @returns {Flatbush} index
   */
  static from(data, byteOffset = 0) {
    if (byteOffset % 8 !== 0) {
      throw new Error("byteOffset must be 8-byte aligned.");
    }
    if (!data || data.byteLength === void 0 || "buffer" in data) {
      throw new Error("Data must be an instance of ArrayBuffer or SharedArrayBuffer.");
    }
    const [magic, versionAndType] = new Uint8Array(data, byteOffset + 0, 2);
    if (magic !== 251) {
      throw new Error("Data does not appear to be in a Flatbush format.");
    }
    const version = versionAndType >> 4;
    if (version !== VERSION) {
      throw new Error(`Got v${version} data when expected v${VERSION}.`);
    }
    const ArrayType = ARRAY_TYPES[versionAndType & 15];
    if (!ArrayType) {
      throw new Error("Unrecognized array type.");
    }
    const [nodeSize] = new Uint16Array(data, byteOffset + 2, 1);
    const [numItems] = new Uint32Array(data, byteOffset + 4, 1);
    return new _Flatbush(numItems, nodeSize, ArrayType, void 0, data, byteOffset);
  }
  /**
   * Create a Flatbush index that will hold a given number of items.
   * @param {number} numItems
   * @param {number} [nodeSize=16] Size of the tree node (16 by default).
   * @param {TypedArrayConstructor} [ArrayType=Float64Array] The array type used for coordinates storage (`Float64Array` by default).
   * @param {ArrayBufferConstructor | SharedArrayBufferConstructor} [ArrayBufferType=ArrayBuffer] The array buffer type used to store data (`ArrayBuffer` by default).
   * @param {ArrayBufferLike} [data] (Only used internally)
   * @param {number} [byteOffset=0] (Only used internally)
   */
  constructor(numItems, nodeSize = 16, ArrayType = Float64Array, ArrayBufferType = ArrayBuffer, data, byteOffset = 0) {
    if (numItems === void 0) throw new Error("Missing required argument: numItems.");
    if (isNaN(numItems) || numItems <= 0) throw new Error(`Unexpected numItems value: ${numItems}.`);
    this.numItems = +numItems;
    this.nodeSize = Math.min(Math.max(+nodeSize, 2), 65535);
    this.byteOffset = byteOffset;
    let n = numItems;
    let numNodes = n;
    this._levelBounds = [n * 4];
    do {
      n = Math.ceil(n / this.nodeSize);
      numNodes += n;
      this._levelBounds.push(numNodes * 4);
    } while (n !== 1);
    this.ArrayType = ArrayType;
    this.IndexArrayType = numNodes < 16384 ? Uint16Array : Uint32Array;
    const arrayTypeIndex = ARRAY_TYPES.indexOf(ArrayType);
    const nodesByteSize = numNodes * 4 * ArrayType.BYTES_PER_ELEMENT;
    if (arrayTypeIndex < 0) {
      throw new Error(`Unexpected typed array class: ${ArrayType}.`);
    }
    const BoxCtor = ArrayType;
    const IdxCtor = this.IndexArrayType;
    if (data) {
      this.data = data;
      this._boxes = new BoxCtor(data, byteOffset + 8, numNodes * 4);
      this._indices = new IdxCtor(data, byteOffset + 8 + nodesByteSize, numNodes);
      this._pos = numNodes * 4;
      this.minX = this._boxes[this._pos - 4];
      this.minY = this._boxes[this._pos - 3];
      this.maxX = this._boxes[this._pos - 2];
      this.maxY = this._boxes[this._pos - 1];
    } else {
      const data2 = this.data = new ArrayBufferType(8 + nodesByteSize + numNodes * this.IndexArrayType.BYTES_PER_ELEMENT);
      this._boxes = new BoxCtor(data2, 8, numNodes * 4);
      this._indices = new IdxCtor(data2, 8 + nodesByteSize, numNodes);
      this._pos = 0;
      this.minX = Infinity;
      this.minY = Infinity;
      this.maxX = -Infinity;
      this.maxY = -Infinity;
      new Uint8Array(data2, 0, 2).set([251, (VERSION << 4) + arrayTypeIndex]);
      new Uint16Array(data2, 2, 1)[0] = this.nodeSize;
      new Uint32Array(data2, 4, 1)[0] = numItems;
    }
    this._queue = new FlatQueue();
  }
  /**
   * Add a given rectangle to the index.
   * @param {number} minX
   * @param {number} minY
   * @param {number} maxX
   * @param {number} maxY
   * @returns {number} A zero-based, incremental number that represents the newly added rectangle.
   */
  add(minX, minY, maxX = minX, maxY = minY) {
    const pos = this._pos;
    const index = pos >> 2;
    const boxes = this._boxes;
    this._indices[index] = index;
    boxes[pos] = minX;
    boxes[pos + 1] = minY;
    boxes[pos + 2] = maxX;
    boxes[pos + 3] = maxY;
    this._pos = pos + 4;
    if (minX < this.minX) this.minX = minX;
    if (minY < this.minY) this.minY = minY;
    if (maxX > this.maxX) this.maxX = maxX;
    if (maxY > this.maxY) this.maxY = maxY;
    return index;
  }
  /** Perform indexing of the added rectangles. */
  finish() {
    if (this._pos >> 2 !== this.numItems) {
      throw new Error(`Added ${this._pos >> 2} items when expected ${this.numItems}.`);
    }
    const boxes = this._boxes;
    if (this.numItems <= this.nodeSize) {
      boxes[this._pos++] = this.minX;
      boxes[this._pos++] = this.minY;
      boxes[this._pos++] = this.maxX;
      boxes[this._pos++] = this.maxY;
      return;
    }
    const { numItems, minX, minY, nodeSize, _indices: indices, _levelBounds: levelBounds } = this;
    const width = this.maxX - minX || 1;
    const height = this.maxY - minY || 1;
    const hilbertValues = new Int32Array(numItems);
    const hilbertMax = (1 << 16) - 1;
    const sx = hilbertMax / width;
    const sy = hilbertMax / height;
    for (let i = 0, pos2 = 0; i < numItems; i++) {
      const itemMinX = boxes[pos2++];
      const itemMinY = boxes[pos2++];
      const itemMaxX = boxes[pos2++];
      const itemMaxY = boxes[pos2++];
      const x = sx * ((itemMinX + itemMaxX) / 2 - minX) | 0;
      const y = sy * ((itemMinY + itemMaxY) / 2 - minY) | 0;
      hilbertValues[i] = hilbert(x, y);
    }
    sort(hilbertValues, boxes, indices, 0, numItems - 1, nodeSize);
    let pos = numItems * 4;
    for (let i = 0, readPos = 0; i < levelBounds.length - 1; i++) {
      const end = levelBounds[i];
      while (readPos < end) {
        const nodeIndex = readPos;
        let nodeMinX = boxes[readPos++];
        let nodeMinY = boxes[readPos++];
        let nodeMaxX = boxes[readPos++];
        let nodeMaxY = boxes[readPos++];
        for (let j = 1; j < nodeSize && readPos < end; j++) {
          nodeMinX = Math.min(nodeMinX, boxes[readPos++]);
          nodeMinY = Math.min(nodeMinY, boxes[readPos++]);
          nodeMaxX = Math.max(nodeMaxX, boxes[readPos++]);
          nodeMaxY = Math.max(nodeMaxY, boxes[readPos++]);
        }
        indices[pos >> 2] = nodeIndex;
        boxes[pos++] = nodeMinX;
        boxes[pos++] = nodeMinY;
        boxes[pos++] = nodeMaxX;
        boxes[pos++] = nodeMaxY;
      }
    }
    this._pos = pos;
  }
  /**
   * Search the index by a bounding box.
   * @param {number} minX
   * @param {number} minY
   * @param {number} maxX
   * @param {number} maxY
   * @param {(index: number, x0: number, y0: number, x1: number, y1: number) => boolean} [filterFn] An optional function that is called on every found item; if supplied, only items for which this function returns true will be included in the results array.
   * @returns {number[]} An array of indices of items intersecting or touching the given bounding box.
   */
  search(minX, minY, maxX, maxY, filterFn) {
    if (this._pos !== this._boxes.length) {
      throw new Error("Data not yet indexed - call index.finish().");
    }
    const { _boxes: boxes, _levelBounds: levelBounds, _indices: indices, nodeSize } = this;
    const numItems4 = this.numItems * 4;
    let nodeIndex = boxes.length - 4;
    let level = levelBounds.length - 1;
    const q = [];
    const results = [];
    let contained = false;
    while (nodeIndex !== void 0) {
      const end = Math.min(nodeIndex + nodeSize * 4, levelBounds[level]);
      const isNode = nodeIndex >= numItems4;
      if (contained) {
        this._collectContained(nodeIndex, end, level, numItems4, results, filterFn);
      } else {
        for (let pos = nodeIndex; pos < end; pos += 4) {
          const x0 = boxes[pos];
          if (maxX < x0) continue;
          const y0 = boxes[pos + 1];
          if (maxY < y0) continue;
          const x1 = boxes[pos + 2];
          if (minX > x1) continue;
          const y1 = boxes[pos + 3];
          if (minY > y1) continue;
          const index = indices[pos >> 2] | 0;
          if (isNode) {
            const c = +(minX <= x0 && minY <= y0 && maxX >= x1 && maxY >= y1);
            q.push(index | c, level - 1);
          } else if (filterFn === void 0 || filterFn(index, x0, y0, x1, y1)) {
            results.push(index);
          }
        }
      }
      level = /** @type {number} */
      q.pop();
      nodeIndex = q.pop();
      if (nodeIndex !== void 0) {
        contained = (nodeIndex & 1) === 1;
        nodeIndex &= ~1;
      }
    }
    return results;
  }
  /**
   * Collect all leaves of a subtree that's fully inside the query, skipping intersection tests.
   * Because the tree is packed bottom-up, those leaves occupy one contiguous block of the leaf
   * level, so we skip traversal entirely: descend to the first leaf, then sweep the flat range.
   * @param {number} nodeIndex
   * @param {number} end
   * @param {number} level
   * @param {number} numItems4
   * @param {number[]} results
   * @param {((index: number, x0: number, y0: number, x1: number, y1: number) => boolean) | undefined} filterFn
   */
  _collectContained(nodeIndex, end, level, numItems4, results, filterFn) {
    const boxes = this._boxes;
    const indices = this._indices;
    let pos = nodeIndex;
    for (let l = level; l > 0; l--) pos = indices[pos >> 2];
    const leafEnd = Math.min(pos + (end - nodeIndex) * this.nodeSize ** level, numItems4);
    if (filterFn === void 0) {
      for (; pos < leafEnd; pos += 4) results.push(indices[pos >> 2] | 0);
    } else {
      for (; pos < leafEnd; pos += 4) {
        const index = indices[pos >> 2] | 0;
        if (filterFn(index, boxes[pos], boxes[pos + 1], boxes[pos + 2], boxes[pos + 3])) results.push(index);
      }
    }
  }
  /**
   * Check whether any item intersects or touches a bounding box, stopping at the first match.
   * @param {number} minX
   * @param {number} minY
   * @param {number} maxX
   * @param {number} maxY
   * @param {(index: number, x0: number, y0: number, x1: number, y1: number) => boolean} [filterFn] An optional function that is called on found items; if supplied, only items for which this function returns true count as a match.
   * @returns {boolean} Whether a matching item was found.
   */
  collides(minX, minY, maxX, maxY, filterFn) {
    if (this._pos !== this._boxes.length) {
      throw new Error("Data not yet indexed - call index.finish().");
    }
    const { _boxes: boxes, _levelBounds: levelBounds, _indices: indices, nodeSize } = this;
    const numItems4 = this.numItems * 4;
    let nodeIndex = boxes.length - 4;
    let level = levelBounds.length - 1;
    const q = [];
    while (nodeIndex !== void 0) {
      const end = Math.min(nodeIndex + nodeSize * 4, levelBounds[level]);
      const isNode = nodeIndex >= numItems4;
      for (let pos = nodeIndex; pos < end; pos += 4) {
        const x0 = boxes[pos];
        if (maxX < x0) continue;
        const y0 = boxes[pos + 1];
        if (maxY < y0) continue;
        const x1 = boxes[pos + 2];
        if (minX > x1) continue;
        const y1 = boxes[pos + 3];
        if (minY > y1) continue;
        const index = indices[pos >> 2] | 0;
        if (isNode) {
          q.push(index, level - 1);
        } else if (filterFn === void 0 || filterFn(index, x0, y0, x1, y1)) {
          return true;
        }
      }
      level = /** @type {number} */
      q.pop();
      nodeIndex = q.pop();
    }
    return false;
  }
  /**
   * Search items in order of distance from the given point.
   * @param {number} x
   * @param {number} y
   * @param {number} [maxResults=Infinity]
   * @param {number} [maxDistance=Infinity]
   * @param {(index: number) => boolean} [filterFn] An optional function for filtering the results.
   * @returns {number[]} An array of indices of items found.
   */
  neighbors(x, y, maxResults = Infinity, maxDistance = Infinity, filterFn) {
    if (this._pos !== this._boxes.length) {
      throw new Error("Data not yet indexed - call index.finish().");
    }
    const { _boxes: boxes, _levelBounds: levelBounds, _indices: indices, _queue: q, nodeSize } = this;
    const numItems4 = this.numItems * 4;
    const nodeSize4 = nodeSize * 4;
    const results = [];
    const maxDistSquared = maxDistance * maxDistance;
    const trackNearest = maxResults === 1;
    let bound = maxDistSquared;
    q.push(boxes.length - 4 << 1, 0);
    while (q.length) {
      const top = q.ids[0];
      if (top & 1) {
        q.pop();
        results.push(top >> 1);
        if (results.length === maxResults) break;
        continue;
      }
      q.pop();
      const nodeIndex = top >> 1;
      const isLeafLevel = nodeIndex < numItems4;
      const end = Math.min(nodeIndex + nodeSize4, upperBound(nodeIndex, levelBounds));
      for (let pos = nodeIndex; pos < end; pos += 4) {
        const minX = boxes[pos];
        const minY = boxes[pos + 1];
        const maxX = boxes[pos + 2];
        const maxY = boxes[pos + 3];
        const dx = Math.max(Math.max(minX - x, x - maxX), 0);
        const dy = Math.max(Math.max(minY - y, y - maxY), 0);
        const dist = dx * dx + dy * dy;
        if (dist > bound) continue;
        const childIndex = indices[pos >> 2] | 0;
        if (isLeafLevel) {
          if (filterFn === void 0 || filterFn(childIndex)) {
            q.push(childIndex << 1 | 1, dist);
            if (trackNearest && dist < bound) bound = dist;
          }
        } else {
          q.push(childIndex << 1, dist);
        }
      }
    }
    q.clear();
    return results;
  }
};
function upperBound(value, arr) {
  let i = 0;
  let j = arr.length - 1;
  while (i < j) {
    const m = i + j >> 1;
    if (arr[m] > value) {
      j = m;
    } else {
      i = m + 1;
    }
  }
  return arr[i];
}
function sort(values, boxes, indices, left, right, nodeSize) {
  const stack = [left, right];
  while (stack.length) {
    const r = stack.pop() || 0;
    const l = stack.pop() || 0;
    if (r - l <= nodeSize && Math.floor(l / nodeSize) >= Math.floor(r / nodeSize)) continue;
    const a = values[l];
    const b2 = values[l + r >> 1];
    const c = values[r];
    const pivot = a > b2 !== a > c ? a : b2 < a !== b2 < c ? b2 : c;
    let i = l - 1;
    let j = r + 1;
    while (true) {
      do
        i++;
      while (values[i] < pivot);
      do
        j--;
      while (values[j] > pivot);
      if (i >= j) break;
      swap(values, boxes, indices, i, j);
    }
    stack.push(l, j, j + 1, r);
  }
}
function swap(values, boxes, indices, i, j) {
  const temp = values[i];
  values[i] = values[j];
  values[j] = temp;
  const k = 4 * i;
  const m = 4 * j;
  const a = boxes[k];
  const b2 = boxes[k + 1];
  const c = boxes[k + 2];
  const d = boxes[k + 3];
  boxes[k] = boxes[m];
  boxes[k + 1] = boxes[m + 1];
  boxes[k + 2] = boxes[m + 2];
  boxes[k + 3] = boxes[m + 3];
  boxes[m] = a;
  boxes[m + 1] = b2;
  boxes[m + 2] = c;
  boxes[m + 3] = d;
  const e = indices[i];
  indices[i] = indices[j];
  indices[j] = e;
}
function hilbert(x, y) {
  let a = x ^ y;
  let b2 = 65535 ^ a;
  let c = 65535 ^ (x | y);
  let d = x & (y ^ 65535);
  let A = a | b2 >> 1;
  let B = a >> 1 ^ a;
  let C = c ^ (c >> 1 ^ b2 & d >> 1);
  let D = d ^ (a & c >> 1 ^ d >> 1);
  a = A & A >> 2 ^ B & B >> 2;
  b2 = A & B >> 2 ^ B & (A ^ B) >> 2;
  c = C ^ (A & C >> 2 ^ B & D >> 2);
  d = D ^ (B & C >> 2 ^ (A ^ B) & D >> 2);
  A = a & a >> 4 ^ b2 & b2 >> 4;
  B = a & b2 >> 4 ^ b2 & (a ^ b2) >> 4;
  C = c ^ (a & c >> 4 ^ b2 & d >> 4);
  D = d ^ (b2 & c >> 4 ^ (a ^ b2) & d >> 4);
  c = C ^ (A & C >> 8 ^ B & D >> 8);
  d = D ^ (B & C >> 8 ^ (A ^ B) & D >> 8);
  c ^= c >> 1;
  d ^= d >> 1;
  a = x ^ y;
  b2 = d | 65535 ^ (a | c);
  a = (a | a << 8) & 16711935;
  a = (a | a << 4) & 252645135;
  a = (a | a << 2) & 858993459;
  a = (a | a << 1) & 1431655765;
  b2 = (b2 | b2 << 8) & 16711935;
  b2 = (b2 | b2 << 4) & 252645135;
  b2 = (b2 | b2 << 2) & 858993459;
  b2 = (b2 | b2 << 1) & 1431655765;
  return ((b2 << 1 | a) >>> 0) - 2147483648;
}

// src/core/geometry/chance.ts
function chance(seed) {
  let state = seed >>> 0;
  return () => {
    state = state + 1831565813 >>> 0;
    let t = state;
    t = Math.imul(t ^ t >>> 15, t | 1);
    t ^= t + Math.imul(t ^ t >>> 7, t | 61);
    return ((t ^ t >>> 14) >>> 0) / 4294967296;
  };
}

// src/core/geometry/elements.ts
var numberAt = (list, i) => list[i];
var floatAt = (list, i) => list[i];
var intAt = (list, i) => list[i];

// src/core/limits.ts
var LIMITS = {
  /** Numbers, of eight bytes each, that remembered results take together before the oldest are forgotten. */
  numbersRemembered: 32e6,
  /** Lines that fill several parts of one operation which are still brought into one order over all of them. */
  linesOrderedOverParts: 5e3,
  /** Things of one operation that are each put in order by themselves; of more, all of a part are run together. */
  putInOrder: 6e3,
  /** Parts of which it is told whether to go over them together, rows that are compared for that, and the least it must save, in seconds. */
  areasApart: 40,
  rowsCompared: 2e3,
  savedSeconds: 2,
  /** Times that are measured, against those that are reckoned. */
  timeFactorLeast: 0.05,
  timeFactorMost: 20,
  /** Prices, in the money of the shop. */
  price: 1e6,
  /** How many times as long an order is searched for when that is asked for by hand. */
  longSearch: 40,
  /** Rows of an area that are timed one by one; of more every so manieth stands for those between. */
  rowsTimed: 1e5,
  /** Speeds of machines and of what they do, in mm a second. */
  speedLeastMmS: 1e-3,
  speedMostMmS: 1e5,
  /** Segments that a machine may be said to take in one file. */
  machineSegments: 1e8,
  /** Thicknesses of a material in stock, and sizes of its sheets. */
  thicknesses: 60,
  sheetSizes: 30,
  /** Things that must not be done to a material. */
  refusals: 8,
  /** How often an operation goes over the same line. */
  passes: 200,
  /** Length of lead-ins and lead-outs, in mm. */
  leadMm: 200,
  /** Sheets of a job. */
  sheets: 20,
  /** Letters of a part that are given to an operation by themselves. */
  lettersAlone: 2e3,
  /** Width of a tab, in mm, and how many an outline gets. */
  tabMm: 50,
  tabsOfOutline: 100,
  /** Starts of cuts, and tabs, placed by hand on a part. */
  cutPlaces: 2e3,
  /** Machines, materials, tools, and rows of cut charts: each of these. */
  shopEntries: 5e3,
  /** Jobs listed that use something of the shop. */
  shopUsers: 20,
  /** Size of a file with a shop, as text, in bytes. */
  shopBytes: 4 * 1024 * 1024,
  /** Size of a job document as JSON text, in bytes. */
  documentBytes: 8 * 1024 * 1024,
  /** Characters in one lettering member that are still prepared. */
  letteringCharacters: 5e3,
  /** Characters in one lettering member that a document may hold at all. */
  letteringStoredCharacters: 1e5,
  /** Letters of one lettering that are moved, turned or sized by themselves. */
  letterChanges: 2e3,
  /** Letters of one part whose readability is measured. */
  lettersRead: 300,
  /** Pairs of one lettering that are joined as is said for them. */
  pairAnswers: 500,
  /** Characters that one letter of such a pair stands for: letters with marks, ligatures. */
  pairCharacters: 32,
  /** Lines of one lettering that have a typeface, size or spacing of their own. */
  ownLines: 200,
  /** Crests of a wave that words run along, on each side of its middle. */
  crests: 500,
  /** Pixels of a picture that are kept; one with more is made smaller as it comes in. */
  rasterPixels: 16e6,
  /** Pixels of a picture that are decoded at all, and the longest side of one. */
  decodedPixels: 12e7,
  rasterSide: 3e4,
  /** Width of a pixel of a picture on the sheet, in mm. */
  pixelLeastMm: 1e-5,
  pixelMostMm: 1e3,
  /** Pictures on a sheet. */
  placedPictures: 20,
  /** Places in a picture that are pressed on to say which tones belong to a shape. */
  tonePicks: 24,
  /** Outlines that one trace comes to; of a picture with more only the largest are kept. */
  tracedOutlines: 4e3,
  /** Characters of a quantity as typed. */
  quantityCharacters: 120,
  /** Parts in a job. */
  parts: 500,
  /** Sides of a polygon, points of a star. */
  shapeCorners: 120,
  /** Segments of all copies in a part; copies of copies grow fast. */
  copiedSegments: 1e5,
  /** Steps of a part. */
  steps: 16,
  /** Members in a part. */
  members: 200,
  /** Pieces of one part that come away and are named one by one; the rest are counted. */
  piecesNamed: 60,
  /** Thin places, and tight gaps, of one part that are named one by one; the rest are counted. */
  thinNamed: 40,
  /** Pieces of one part that get studs, and how many each gets at most. */
  piecesStudded: 500,
  studsEach: 8,
  /** Pieces of one part that are joined by ties; of more, none is. */
  piecesTied: 200,
  /** Islands of one part that are bridged; of more, none is. */
  islands: 2e3,
  /** Bridges of one island, and bridges of one part placed by hand. */
  bridgesOfIsland: 4,
  bridgesPlaced: 2e3,
  /** How far from its letter's origin a bridge may be kept, in capital heights. */
  bridgeCapitals: 1e3,
  /** Farthest offset, border and the like, in mm. */
  offsetMostMm: 200,
  /** Operations in a job. */
  operations: 64,
  /** Highest number of a pen in plotter files, and pens that stand for one operation. */
  pens: 255,
  pensOfOperation: 16,
  /** Bytes that a name of a file has of each of a job's title, its part and its material. */
  fileNamePartBytes: 80,
  /** Bytes of a file’s name without its ending: disks take 255 with it. */
  fileNameBytes: 240,
  /** Tags of a job, and characters of one tag. */
  tags: 24,
  tagCharacters: 40,
  /** Jobs that a tag is given to, or taken from, at once. */
  jobsTagged: 500,
  /** Characters of what is said of a starter, and words that are asked for when a job is started from it. */
  starterAbout: 300,
  starterWords: 12,
  /** Starters of the shop's own that are shown. */
  starters: 200,
  /** Characters of a title or a name. */
  nameCharacters: 200,
  /** Longest and shortest length anywhere in a document, in mm (100 m, 1 µm). */
  lengthMm: 1e5,
  leastLengthMm: 1e-3,
  /** Largest and smallest that a member may come to, all its factors together, in mm (1 km, 1 µm). */
  memberMostMm: 1e6,
  memberLeastMm: 1e-3,
  /** Coordinates of lines kept in shares of what they lie on: of capital heights, or of a first member. */
  pathShares: 1e4,
  /** Radius of an arc in path data, in mm (10 km); a flatter one is as good as a curve. */
  arcRadiusMm: 1e7,
  /** Where a tie placed by hand lies, in sizes of its piece. */
  tieShares: 1e3,
  /** Least and greatest sheet side, in mm. */
  sheetLeastMm: 1,
  sheetMostMm: 2e4,
  /** Size of a typeface file, in bytes. */
  typefaceBytes: 32 * 1024 * 1024,
  /** What a typeface file may unpack to, in bytes; faces of a collection, and glyphs of a face. */
  typefaceUnpackedBytes: 64 * 1024 * 1024,
  facesInFile: 64,
  facesFeatures: 200,
  /** Typeface files that are kept in the list. */
  typefacesKept: 5e3,
  /** Longest that reading a typeface may take, in seconds. */
  typefaceSeconds: 20,
  /** Axes of a variable face, places along them that have a name, and forms that a feature gives. */
  faceAxes: 64,
  faceInstances: 500,
  faceForms: 100,
  /** Characters of what a face says of its licence. */
  faceWords: 2e3,
  typefaceGlyphs: 65535,
  /** How deep glyphs put together from others may lie in each other; lines and curves of one glyph. */
  compositeDepth: 16,
  glyphSegments: 2e4,
  /** Tolerance for curves made into arcs, in mm. */
  arcToleranceLeastMm: 1e-3,
  arcToleranceMostMm: 1,
  /** A job taken along: its bytes, packed and unpacked, and files in it beside the document. */
  takenBytes: 512 * 1024 * 1024,
  takenFiles: 2e3,
  /** Size of a drawing that is brought in, in bytes; the same once it is unpacked. */
  drawingBytes: 64 * 1024 * 1024,
  /** Size of a file, or of a drawing read from one, that is kept with the jobs, in bytes. */
  assetBytes: 128 * 1024 * 1024,
  /** Kept files that are asked for at once, and what they may weigh together in one answer, in bytes; the rest is asked for by itself. */
  assetsAtOnce: 16,
  assetsAtOnceBytes: 32 * 1024 * 1024,
  /** Size of all files that are kept together, in bytes. */
  assetsBytes: 8 * 1024 * 1024 * 1024,
  /** How long a file that nothing uses any more is kept, in days. */
  unusedAssetDays: 30,
  /** Longest that the page waits for an answer of the server, in seconds. */
  answerSeconds: 60,
  /** Pages of a file that are offered. */
  pages: 500,
  /** Operators of a page that are read. */
  pageOperators: 5e5,
  /** Lines and curves of a page that its small picture shows. */
  pagePictureSegments: 2e4,
  /** Lines and curves that the picture of a file shows before it is brought in; more than these hold a browser up. */
  previewSegments: 1e5,
  /** Longest that reading a drawing may take, in seconds. */
  readSeconds: 60,
  /** Elements of a drawing, those it repeats included, and how deep they may lie in each other. */
  drawnElements: 5e5,
  drawnDepth: 256,
  /** How deep markup may go before reading stops altogether: resolving names takes longer with every level. */
  markupDepth: 4e3,
  /** Characters of a selector of a style sheet in a drawing, and of a typeface named in short. */
  selectorCharacters: 1e3,
  /** Times a drawing may use a shape or block again. */
  usedShapes: 2e4,
  /** Lines and curves of a drawing. */
  drawnSegments: 1e6,
  /** Lines of words in a drawing that are set; characters of words that are looked at. */
  drawnTexts: 1e3,
  drawnWords: 4 * 1024 * 1024,
  /** Groups of a drawing that are told apart, and sentences about it. */
  drawnGroups: 400,
  drawnNotes: 20,
  /** How far from the origin a drawing may reach, in mm. */
  drawnLengthMm: 1e5,
  /** Faults in the markup of a file after which reading stops. */
  markupFaults: 1e3,
  /** Entities of a document type and their characters in all. */
  entities: 64,
  entityCharacters: 65536,
  /** Rules of a style sheet; rules times elements that are tried. */
  styleRules: 5e3,
  styleTests: 2e7,
  /** Lengths of dashes and gaps after which a dashed line repeats. */
  dashes: 32,
  /** Characters of path data that a document holds for one path drawn by hand, or one part worked on by hand. */
  pathCharacters: 4 * 1024 * 1024,
  /** Widest gap that is closed, in mm, and gaps of one drawing that are answered one by one. */
  gapMostMm: 50,
  gapAnswers: 5e3,
  /** Letters, or pieces of a shape, of one part that are traced down their middle. */
  lettersTraced: 2e3,
  /** Letters whose centerlines are corrected by hand in one part. */
  lineCorrections: 500,
  /** Uneven places of centerlines, and dots on each other, of one part that are named one by one; the rest are counted. */
  unevenNamed: 8,
  clashesNamed: 8,
  /** Dots of one part: those made, and those moved or left out by hand. */
  dots: 2e4,
  dotChanges: 2e3,
  /** Lines that fill one part, rings of one part, and rows that its cover is looked at in; of more, none is made. */
  hatchLines: 1e6,
  hatchRings: 1e3,
  coverRows: 2e4,
  /** Missed places of one part that are named one by one; the rest are counted. */
  missedNamed: 5,
  /** Tools in a job. */
  tools: 40,
  /** Places of a job where lines are gone along twice that are named one by one; of the rest it is said that there are more. */
  twiceNamed: 20,
  /** Pairs of parts whose bounds meet that are looked at for lines in common. */
  twicePairs: 400,
  /** Pairs of what is worked whose bounds meet that are looked at for collisions. */
  collisionPairs: 400,
  /** Pairs of parts cut across each other that are named one by one. */
  collisionsNamed: 20,
  /** Gaps of one drawing that are named one by one; the rest are counted. */
  gapsNamed: 40,
  /** Bytes of a job's picture as JSON. */
  pictureBytes: 400 * 1024
};

// src/core/toolpath/ordering/places.ts
var Places = class {
  constructor({ stops, first }, start, cost2) {
    this.start = start;
    this.cost = cost2;
    this.firstPlace = new Int32Array(stops.length + 1);
    stops.forEach((stop, i) => {
      this.firstPlace[i + 1] = intAt(this.firstPlace, i) + stop.ways.length;
    });
    const count = intAt(this.firstPlace, stops.length);
    [this.fromX, this.fromY] = [new Float64Array(count), new Float64Array(count)];
    [this.toX, this.toY] = [new Float64Array(count), new Float64Array(count)];
    this.owner = new Int32Array(count);
    this.isOpen = Uint8Array.from(stops, (s) => s.isOpen && s.ways.length === 2 ? 1 : 0);
    stops.forEach(({ ways }, i) => {
      ways.forEach(({ from, to }, k) => {
        const p = intAt(this.firstPlace, i) + k;
        [this.fromX[p], this.fromY[p], this.toX[p], this.toY[p]] = [from.x, from.y, to.x, to.y];
        this.owner[p] = i;
      });
    });
    this.middleX = new Float64Array(stops.length);
    this.middleY = new Float64Array(stops.length);
    this.reach = new Float64Array(stops.length);
    stops.forEach(({ ways }, i) => {
      for (const { from, to } of ways) {
        this.middleX[i] = floatAt(this.middleX, i) + (from.x + to.x) / 2 / ways.length;
        this.middleY[i] = floatAt(this.middleY, i) + (from.y + to.y) / 2 / ways.length;
      }
      for (const { from, to } of ways)
        for (const { x, y } of [from, to])
          this.reach[i] = Math.max(
            floatAt(this.reach, i),
            Math.hypot(x - floatAt(this.middleX, i), y - floatAt(this.middleY, i))
          );
    });
    this.before = first;
    const after = stops.map(() => []);
    first.forEach((list, i) => {
      for (const j of list) after[j]?.push(i);
    });
    this.after = after;
  }
  start;
  cost;
  /** Places of stop i: from firstPlace[i] up to firstPlace[i + 1]. */
  firstPlace;
  fromX;
  fromY;
  toX;
  toY;
  /** Which stop each place is of, and whether a stop may be run backwards. */
  owner;
  isOpen;
  /** A circle about all places of each stop. */
  middleX;
  middleY;
  reach;
  /** What must come before each stop, and after it. */
  before;
  after;
  /** No less than this is what it costs to go through a stop from the place that is left to one that is gone to, wherever it is begun. */
  atLeast(i, left, next) {
    const there = left < 0 ? this.toReach(i, this.start.x, this.start.y) : this.toReach(i, floatAt(this.toX, left), floatAt(this.toY, left));
    return next < 0 ? there : there + this.toReach(i, floatAt(this.fromX, next), floatAt(this.fromY, next));
  }
  toReach(i, x, y) {
    const dx = x - floatAt(this.middleX, i);
    const dy = y - floatAt(this.middleY, i);
    const d = Math.sqrt(dx * dx + dy * dy) - floatAt(this.reach, i);
    return d > 0 ? this.cost(d, 0) : 0;
  }
  /** What it costs from the place that is left to one that is gone to; -1 before the first, and after the last. */
  gap(left, next) {
    if (next < 0) return 0;
    if (left < 0) return this.cost(floatAt(this.fromX, next) - this.start.x, floatAt(this.fromY, next) - this.start.y);
    return this.cost(
      floatAt(this.fromX, next) - floatAt(this.toX, left),
      floatAt(this.fromY, next) - floatAt(this.toY, left)
    );
  }
};

// src/core/toolpath/ordering/exact.ts
var MOST_STOPS = 8;
var MOST_WAYS = 100;
var isFew = ({ stops }) => stops.length <= MOST_STOPS && stops.reduce((sum2, s) => sum2 + s.ways.length, 0) <= MOST_WAYS;
function exactOrder(toOrder, from, cost2) {
  const n = toOrder.stops.length;
  const places = new Places(toOrder, from, cost2);
  const m = intAt(places.firstPlace, n);
  const all = (1 << n) - 1;
  const needs = toOrder.first.map((list) => list.reduce((mask, j) => mask | 1 << j, 0));
  const gaps = new Float64Array(m * m);
  for (let a = 0; a < m; a++) for (let b2 = 0; b2 < m; b2++) gaps[a * m + b2] = places.gap(a, b2);
  const costs = new Float64Array((all + 1) * m).fill(Infinity);
  const came = new Int32Array((all + 1) * m).fill(-1);
  for (let done = 0; done < all; done++)
    for (let b2 = 0; b2 < m; b2++) {
      const i = intAt(places.owner, b2);
      if (done >> i & 1 || ((needs[i] ?? 0) & ~done) !== 0) continue;
      let [least, left] = done === 0 ? [places.gap(-1, b2), -1] : [Infinity, -1];
      for (let a = 0; done > 0 && a < m; a++) {
        const sum2 = floatAt(costs, done * m + a) + floatAt(gaps, a * m + b2);
        if (sum2 < least) [least, left] = [sum2, a];
      }
      const at = (done | 1 << i) * m + b2;
      costs[at] = least;
      came[at] = left;
    }
  let last = 0;
  for (let b2 = 1; b2 < m; b2++) if (floatAt(costs, all * m + b2) < floatAt(costs, all * m + last)) last = b2;
  const order = [];
  const ways = new Int32Array(n);
  for (let [done, b2] = [all, last]; done > 0; ) {
    const i = intAt(places.owner, b2);
    order.push(i);
    ways[i] = b2 - intAt(places.firstPlace, i);
    const before = intAt(came, done * m + b2);
    done &= ~(1 << i);
    if (before < 0) break;
    b2 = before;
  }
  return { order: Int32Array.from(order.reverse()), ways };
}

// src/core/geometry/point-tree.ts
var LEAF = 8;
var PointTree = class {
  constructor(x, y, areIn) {
    this.x = x;
    this.y = y;
    const n = x.length;
    this.size = n;
    this.ids = Int32Array.from({ length: n }, (_, i) => i);
    this.place = new Int32Array(n);
    this.isIn = new Uint8Array(n);
    let nodes = 1;
    while (nodes * LEAF < n) nodes *= 2;
    this.alive = new Int32Array(2 * nodes);
    this.split = new Float64Array(2 * nodes);
    if (n > 0) this.build(1, 0, n, 0);
    this.ids.forEach((id, k) => {
      this.place[id] = k;
    });
    if (areIn) for (let i = 0; i < n; i++) this.put(i, true);
  }
  x;
  y;
  ids;
  /** Where each point stands in the order of the tree. */
  place;
  isIn;
  /** How many are in below each node; nodes are numbered as in a heap. */
  alive;
  split;
  size;
  best = -1;
  least = Infinity;
  /** Take a point in or out. */
  put(id, isIn) {
    if (this.isIn[id] === (isIn ? 1 : 0)) return;
    this.isIn[id] = isIn ? 1 : 0;
    const by = isIn ? 1 : -1;
    const at = intAt(this.place, id);
    let [node, from, to] = [1, 0, this.size];
    for (; ; ) {
      this.alive[node] = intAt(this.alive, node) + by;
      if (to - from <= LEAF || 2 * node >= this.alive.length) return;
      const middle = from + to >> 1;
      if (at < middle) [node, to] = [2 * node, middle];
      else [node, from] = [2 * node + 1, middle];
    }
  }
  /** The nearest that is in, by its index; -1 where none is. */
  nearest(x, y) {
    this.best = -1;
    this.least = Infinity;
    if (this.size > 0) this.look({ node: 1, from: 0, to: this.size, axis: 0 }, x, y);
    return this.best;
  }
  look({ node, from, to, axis }, x, y) {
    if (this.alive[node] === 0) return;
    if (to - from <= LEAF || 2 * node >= this.alive.length) {
      for (let k = from; k < to; k++) {
        const id = intAt(this.ids, k);
        if (!this.isIn[id]) continue;
        const far = (floatAt(this.x, id) - x) ** 2 + (floatAt(this.y, id) - y) ** 2;
        if (far < this.least || far === this.least && id < this.best) [this.least, this.best] = [far, id];
      }
      return;
    }
    const middle = from + to >> 1;
    const off = (axis === 0 ? x : y) - floatAt(this.split, node);
    const other = axis === 0 ? 1 : 0;
    const low = { node: 2 * node, from, to: middle, axis: other };
    const high = { node: 2 * node + 1, from: middle, to, axis: other };
    this.look(off < 0 ? low : high, x, y);
    if (off * off <= this.least) this.look(off < 0 ? high : low, x, y);
  }
  build(node, from, to, axis) {
    if (to - from <= LEAF || 2 * node >= this.alive.length) return;
    const by = axis === 0 ? this.x : this.y;
    this.ids.subarray(from, to).sort((a, b2) => floatAt(by, a) - floatAt(by, b2) || a - b2);
    const middle = from + to >> 1;
    this.split[node] = floatAt(by, intAt(this.ids, middle));
    const other = axis === 0 ? 1 : 0;
    this.build(2 * node, from, middle, other);
    this.build(2 * node + 1, middle, to, other);
  }
};

// src/core/toolpath/ordering/tour.ts
var WORTH = 1e-9;
var LONGEST = 1e3;
var Tour = class {
  count;
  places;
  /** The tour: stops in order, where each stands in it, and the place each begins at. */
  order;
  position;
  place;
  /** What the move to each position costs; none to behind the last. */
  edge;
  held;
  changes = null;
  /** What the best place that was looked for last costs. */
  least = Infinity;
  waiting = [];
  isWaiting;
  constructor(toOrder, start, cost2) {
    this.places = new Places(toOrder, start, cost2);
    const n = toOrder.stops.length;
    this.count = n;
    this.order = new Int32Array(n);
    this.position = new Int32Array(n);
    this.place = new Int32Array(n);
    this.edge = new Float64Array(n + 1);
    this.held = new Int32Array(n);
    this.isWaiting = new Uint8Array(n);
    this.nearestNext();
  }
  /** Always the nearest next of what may be run by then; the first from a place that is given, or the nearest to the start. */
  nearestNext(first = null) {
    const tree = new PointTree(this.places.fromX, this.places.fromY, false);
    const needs = Int32Array.from(this.places.before, (list) => list.length);
    const put = (i, isIn) => {
      for (let p = intAt(this.places.firstPlace, i); p < intAt(this.places.firstPlace, i + 1); p++) tree.put(p, isIn);
    };
    needs.forEach((need, i) => {
      if (need === 0) put(i, true);
    });
    let next = first ?? tree.nearest(this.places.start.x, this.places.start.y);
    for (let k = 0; next >= 0; k++) {
      const i = intAt(this.places.owner, next);
      this.order[k] = i;
      this.position[i] = k;
      this.place[i] = next;
      put(i, false);
      for (const j of this.places.after[i] ?? []) {
        needs[j] = intAt(needs, j) - 1;
        if (needs[j] === 0) put(j, true);
      }
      next = tree.nearest(floatAt(this.places.toX, next), floatAt(this.places.toY, next));
    }
    this.reckon(0, this.count);
  }
  /** Reckon moves from one position to another anew. */
  reckon(low, high) {
    for (let k = low; k <= high && k < this.count; k++) this.edge[k] = this.gap(this.endAt(k - 1), this.placeAt(k));
  }
  /** Take over an order; what must come first is brought before what it must come before. */
  take({ order, ways }) {
    const taken = new Uint8Array(this.count);
    let k = 0;
    const visit = (i) => {
      if (taken[i]) return;
      taken[i] = 1;
      for (const j of this.places.before[i] ?? []) visit(j);
      this.order[k] = i;
      this.position[i] = k++;
      this.place[i] = intAt(this.places.firstPlace, i) + (ways[i] ?? 0);
    };
    order.forEach(visit);
    this.reckon(0, this.count);
  }
  /** The tour as it is. */
  given() {
    const ways = Int32Array.from(
      { length: this.count },
      (_, i) => intAt(this.place, i) - intAt(this.places.firstPlace, i)
    );
    return { order: this.order.slice(), ways };
  }
  /** What the whole tour costs. */
  total() {
    let sum2 = 0;
    for (let k = 0; k < this.count; k++) sum2 += floatAt(this.edge, k);
    return sum2;
  }
  gap(left, next) {
    return this.places.gap(left, next);
  }
  stopAt(k) {
    return intAt(this.order, k);
  }
  /** The place run from at a position; one that is left, or gone to, is the same: it tells both ends. */
  placeAt(k) {
    return k < 0 || k >= this.count ? -1 : intAt(this.place, intAt(this.order, k));
  }
  endAt(k) {
    return k < 0 ? -1 : this.placeAt(k);
  }
  /** The place that a stop is run from backwards. */
  turned(i) {
    const p = intAt(this.place, i);
    return this.places.isOpen[i] ? 2 * intAt(this.places.firstPlace, i) + 1 - p : p;
  }
  /** Keep what is changed from now on, so that it can be taken back. */
  keepChanges() {
    this.changes = [];
  }
  /** Take back all that was changed since it was kept. */
  takeBack() {
    const changes = this.changes ?? [];
    this.changes = null;
    for (let c = changes.length - 1; c >= 0; c--) {
      const { from, stops, ways } = changes[c];
      this.put(from, stops, ways);
    }
  }
  put(from, stops, places) {
    if (this.changes) {
      const was = Array.from(this.order.subarray(from, from + stops.length));
      this.changes.push({ from, stops: was, ways: was.map((i) => intAt(this.place, i)) });
    }
    stops.forEach((i, k) => {
      this.order[from + k] = i;
      this.position[i] = from + k;
      this.place[i] = numberAt(places, k);
    });
    this.reckon(from, from + stops.length);
  }
  /** Look at the stop at a position again. */
  wake(k) {
    if (k < 0 || k >= this.count) return;
    const i = this.stopAt(k);
    if (this.isWaiting[i]) return;
    this.isWaiting[i] = 1;
    this.waiting.push(i);
  }
  /** Look at every stop again. */
  wakeAll() {
    for (let k = 0; k < this.count; k++) this.wake(k);
  }
  /** Whether no stop waits to be improved. */
  get isSettled() {
    return this.waiting.length === 0;
  }
  /** Improve stops that were woken until nothing is gained any more, or so many were looked at; what was gained in all. */
  settle(near, most = Number.POSITIVE_INFINITY) {
    let gained = 0;
    let head = 0;
    for (; head < this.waiting.length && head < most; head++) {
      const i = numberAt(this.waiting, head);
      this.isWaiting[i] = 0;
      for (let more = this.improve(i, near); more > 0; more = this.improve(i, near)) gained += more;
    }
    this.waiting.splice(0, head);
    return gained;
  }
  /** The first change about a stop that gains anything, made; what it gained, 0 for none. */
  improve(i, near) {
    const at = intAt(this.position, i);
    const begun = this.begin(at);
    if (begun > 0) {
      for (const touched of [at - 1, at, at + 1]) this.wake(touched);
      return begun;
    }
    const reach = Math.max(floatAt(this.edge, at), floatAt(this.edge, at + 1));
    const { stops, costs } = near[i];
    for (let k = 0; k < stops.length; k++) {
      if (floatAt(costs, k) >= reach) return 0;
      const other = intAt(stops, k);
      const p = intAt(this.position, i);
      const q = intAt(this.position, other);
      const low = Math.min(p, q);
      const high = Math.max(p, q);
      const moved = this.insert(i, q) || this.insert(i, q - 1) || this.insert(other, p) || this.insert(other, p - 1) || this.turn(low + 1, high) || this.turn(low, high - 1);
      if (moved > 0) return moved;
      for (let length = 1; length <= 3; length++) {
        const swapped = this.swap(low + 1, high, high + length - 1) || this.swap(low - length + 1, low + 1, high - 1) || this.swap(low, high - length + 1, high) || this.swap(low, low + length, high);
        if (swapped > 0) return swapped;
      }
    }
    return 0;
  }
  /** The place of a stop that costs least between two others; what it costs is in `least`. */
  bestPlace(i, left, next) {
    let best2 = -1;
    this.least = Infinity;
    const to = intAt(this.places.firstPlace, i + 1);
    for (let p = intAt(this.places.firstPlace, i); p < to; p++) {
      const cost2 = this.places.gap(left, p) + this.places.gap(p, next);
      if (cost2 < this.least) {
        best2 = p;
        this.least = cost2;
      }
    }
    return best2;
  }
  /** Put a stop right behind position k, begun where that is best (Or 1976). */
  insert(i, k) {
    const p = intAt(this.position, i);
    if (k === p || k === p - 1 || Math.abs(k - p) > 4 * LONGEST) return 0;
    const left = this.endAt(k);
    const next = this.placeAt(k + 1);
    const out = floatAt(this.edge, p) + floatAt(this.edge, p + 1) + floatAt(this.edge, k + 1);
    if (!(out - this.places.atLeast(i, left, next) >= WORTH)) return 0;
    const saved = out - this.gap(this.endAt(p - 1), this.placeAt(p + 1));
    if (!(saved >= WORTH)) return 0;
    const best2 = this.bestPlace(i, left, next);
    const gain = saved - this.least;
    if (!(gain >= WORTH)) return 0;
    const [low, high] = [Math.min(p, k + 1), Math.max(p, k)];
    if (k > p) {
      for (const j of this.places.after[i] ?? [])
        if (intAt(this.position, j) > p && intAt(this.position, j) <= k) return 0;
    } else
      for (const j of this.places.before[i] ?? [])
        if (intAt(this.position, j) > k && intAt(this.position, j) < p) return 0;
    const stops = [];
    const places = [];
    const push = (j, place) => {
      stops.push(j);
      places.push(place);
    };
    if (k < p) push(i, best2);
    for (let m = low; m <= high; m++) {
      const j = this.stopAt(m);
      if (j !== i) push(j, intAt(this.place, j));
    }
    if (k > p) push(i, best2);
    this.put(low, stops, places);
    for (const touched of [low - 1, low, low + 1, high - 1, high, high + 1]) this.wake(touched);
    return gain;
  }
  /**
   * Turn the stretch from i to j round (2-opt, Croes 1958). A stop that would come before what must come first is held back until the last
   * of that is out; the whole is priced anew.
   */
  turn(i, j) {
    if (j <= i || i < 0 || j >= this.count || j - i > LONGEST) return 0;
    const left = this.endAt(i - 1);
    const next = this.placeAt(j + 1);
    const head = this.turned(this.stopAt(j));
    const tail = this.turned(this.stopAt(i));
    const removed = floatAt(this.edge, i) + floatAt(this.edge, j + 1) - WORTH;
    const first = this.gap(left, head);
    if (!(first <= removed) || !(first + this.gap(tail, next) <= removed)) return 0;
    const stops = [];
    const places = [];
    const isWithin = (k) => k >= i && k <= j;
    const out = (stop) => {
      stops.push(stop);
      places.push(this.turned(stop));
      for (const later of this.places.after[stop] ?? []) {
        if (intAt(this.held, later) > 0) {
          this.held[later] = intAt(this.held, later) - 1;
          if (this.held[later] === 0 && isWithin(intAt(this.position, later))) out(later);
        }
      }
    };
    for (let k = j; k >= i; k--) {
      const stop = this.stopAt(k);
      let needs = 0;
      for (const prior of this.places.before[stop] ?? []) if (isWithin(intAt(this.position, prior))) needs++;
      if (needs > 0) this.held[stop] = needs;
      else out(stop);
    }
    let [was, now, at] = [0, 0, left];
    for (let k = i; k <= j + 1; k++) was += floatAt(this.edge, k);
    for (const place of places) {
      now += this.gap(at, place);
      at = place;
    }
    now += this.gap(at, next);
    if (!(now <= was - WORTH)) return 0;
    return this.change(i, { stops, places }, was - now, [i, j + 1]);
  }
  /** Change the stretches from i up to m, and from m to j, for each other; whatever it costs where it is forced, which yields -Infinity where it may not be. */
  swap(i, m, j, isForced = false) {
    const refused = isForced ? Number.NEGATIVE_INFINITY : 0;
    if (i < 0 || j >= this.count || m <= i || m > j || j - i > 4 * LONGEST) return refused;
    const left = this.endAt(i - 1);
    const next = this.placeAt(j + 1);
    const a = this.placeAt(i);
    const aEnd = this.placeAt(m - 1);
    const b2 = this.placeAt(m);
    const bEnd = this.placeAt(j);
    const removed = floatAt(this.edge, i) + floatAt(this.edge, m) + floatAt(this.edge, j + 1);
    const worth = isForced ? Infinity : removed - WORTH;
    let added = this.gap(bEnd, a);
    if (!(added <= worth)) return 0;
    added += this.gap(left, b2);
    if (!(added <= worth)) return 0;
    added += this.gap(aEnd, next);
    if (!(added <= worth)) return 0;
    const gain = removed - added;
    if (m - i <= j - m) {
      for (let k = i; k < m; k++)
        for (const later of this.places.after[this.stopAt(k)] ?? []) {
          const at = intAt(this.position, later);
          if (at >= m && at <= j) return refused;
        }
    } else {
      for (let k = m; k <= j; k++)
        for (const prior of this.places.before[this.stopAt(k)] ?? []) {
          const at = intAt(this.position, prior);
          if (at >= i && at < m) return refused;
        }
    }
    const stops = [...this.order.subarray(m, j + 1), ...this.order.subarray(i, m)];
    const places = stops.map((s) => intAt(this.place, s));
    const x = i + j - m;
    return this.change(i, { stops, places }, gain, [i, x + 1, j + 1]);
  }
  /** Put stops in from a position on, and begin those at the joints where that is best then. What it gains in all. */
  change(from, { stops, places }, gain, joints) {
    this.put(from, stops, places);
    let sum2 = gain;
    for (const joint of joints) {
      sum2 += this.begin(joint) + this.begin(joint - 1);
      for (const touched of [joint - 2, joint - 1, joint, joint + 1]) this.wake(touched);
    }
    return sum2;
  }
  /** Begin the stop at a position at the best of its places; what that gained. */
  begin(k) {
    if (k < 0 || k >= this.count) return 0;
    const i = this.stopAt(k);
    if (intAt(this.places.firstPlace, i + 1) - intAt(this.places.firstPlace, i) < 2) return 0;
    const left = this.endAt(k - 1);
    const next = this.placeAt(k + 1);
    const best2 = this.bestPlace(i, left, next);
    const gain = floatAt(this.edge, k) + floatAt(this.edge, k + 1) - this.least;
    if (!(gain >= WORTH)) return 0;
    this.put(k, [i], [best2]);
    return gain;
  }
  /** The best places to begin at, of the stops from one position to another, with their order and all others as they are: the shortest way through all of them (dynamic programming). What it gained. */
  beginBest(low = 0, high = this.count - 1) {
    if (high < low) return 0;
    const next = this.placeAt(high + 1);
    let was = 0;
    for (let k = low; k <= high + 1; k++) was += floatAt(this.edge, k);
    let costs = [];
    const back = [];
    for (let k = low; k <= high; k++) {
      const i = this.stopAt(k);
      const [from, to] = [intAt(this.places.firstPlace, i), intAt(this.places.firstPlace, i + 1)];
      const here = [];
      const came = new Int32Array(to - from);
      const prior = k === low ? -1 : intAt(this.places.firstPlace, this.stopAt(k - 1));
      for (let p = from; p < to; p++) {
        let least = k === low ? this.gap(this.endAt(k - 1), p) : Infinity;
        for (let q = 0; k > low && q < costs.length; q++) {
          const cost2 = numberAt(costs, q) + this.gap(prior + q, p);
          if (cost2 < least) [least, came[p - from]] = [cost2, q];
        }
        here.push(k === high && next >= 0 ? least + this.gap(p, next) : least);
      }
      costs = here;
      back.push(came);
    }
    let best2 = costs.reduce((b2, cost2, p) => cost2 < numberAt(costs, b2) ? p : b2, 0);
    const gain = was - numberAt(costs, best2);
    if (!(gain >= WORTH)) return 0;
    const places = [];
    for (let k = high; k >= low; k--) {
      places.push(intAt(this.places.firstPlace, this.stopAt(k)) + best2);
      best2 = intAt(back[k - low], best2);
    }
    this.put(low, Array.from(this.order.subarray(low, high + 1)), places.reverse());
    return gain;
  }
};

// src/core/toolpath/ordering/search.ts
var NEAR = 14;
var LOOKED_FROM = 8;
var FEW = 1500;
var KICKS_EACH = 8;
var FEWEST_KICKS = 200;
var MOST_KICKS = 1e3;
var KICKED = 2e5;
var KICK = 80;
var TRIES = 10;
var WORTH_A_LOOK = 1.02;
var WORTH2 = 1e-9;
var HEAT = 0.05;
var TURN = 50;
var AT_ONCE = 200;
function nearOf({ count, places: { firstPlace, fromX, fromY } }, cost2) {
  const most = count > FEW ? 2 : LOOKED_FROM;
  const owners = [];
  const sampled = [];
  for (let i = 0; i < count; i++) {
    const [from, to] = [intAt(firstPlace, i), intAt(firstPlace, i + 1)];
    const step = Math.max(1, Math.ceil((to - from) / most));
    for (let p = from; p < to; p += step) {
      owners.push(i);
      sampled.push(p);
    }
  }
  const index = new Flatbush(sampled.length);
  for (const p of sampled) index.add(floatAt(fromX, p), floatAt(fromY, p));
  index.finish();
  const near = Array.from({ length: count }, () => /* @__PURE__ */ new Map());
  sampled.forEach((p, k) => {
    const own = owners[k];
    const [x, y] = [floatAt(fromX, p), floatAt(fromY, p)];
    const known = near[own];
    for (const q of index.neighbors(x, y, NEAR, Infinity, (q2) => owners[q2] !== own)) {
      const other = owners[q];
      const at = sampled[q];
      const far = Math.hypot(floatAt(fromX, at) - x, floatAt(fromY, at) - y);
      known.set(other, Math.min(far, known.get(other) ?? Infinity));
    }
  });
  return near.map((known) => {
    const nearest = [...known].sort((a, b2) => a[1] - b2[1] || a[0] - b2[0]).slice(0, NEAR);
    return {
      stops: Int32Array.from(nearest, ([i]) => i),
      costs: Float64Array.from(nearest, ([, far]) => cost2(far, 0))
    };
  });
}
function kicksOf(n, how2) {
  if (how2 === "quick") return 0;
  const kicks = Math.min(MOST_KICKS, Math.max(FEWEST_KICKS, KICKS_EACH * n), Math.ceil(KICKED / n));
  return how2 === "long" ? LIMITS.longSearch * kicks : kicks;
}
function* searchOrder(toOrder, { from, cost: cost2, how: how2, begun }) {
  if (isFew(toOrder)) return exactOrder(toOrder, from, cost2);
  const tour = new Tour(toOrder, from, cost2);
  const n = tour.count;
  if (n < 2) return tour.given();
  if (begun) tour.take(begun);
  let order = tour.given();
  const near = nearOf(tour, cost2);
  tour.beginBest();
  tour.wakeAll();
  while (!tour.isSettled) {
    tour.settle(near, AT_ONCE);
    yield { share: 0, order };
  }
  tour.beginBest();
  order = tour.given();
  const kicks = kicksOf(n, how2);
  const random = chance(1);
  let total = tour.total();
  let best2 = total;
  const mean = total / n;
  for (let k = 0; k < kicks && n > 3; k++) {
    if (k % TURN === TURN - 1) yield { share: k / kicks, order };
    const heat = HEAT * mean * (1 - k / kicks);
    total -= kick(tour, near, { total, random, loss: -Math.log(1 - random()) * heat });
    if (total < best2 - WORTH2) [best2, order] = [total, tour.given()];
  }
  return order;
}
function kick(tour, near, { total, random, loss }) {
  const n = tour.count;
  const far = Math.max(1, Math.min(KICK, n / 3));
  tour.keepChanges();
  let [i, m, j, gained] = [0, 0, 0, Number.NEGATIVE_INFINITY];
  for (let tries = 0; tries < TRIES && gained === Number.NEGATIVE_INFINITY; tries++) {
    i = Math.floor(random() * (n - 1));
    m = i + 1 + Math.floor(random() * far);
    j = Math.min(n - 1, m + Math.floor(random() * far));
    gained = tour.swap(i, m, j, true);
  }
  if (gained === Number.NEGATIVE_INFINITY) {
    tour.takeBack();
    return 0;
  }
  gained += tour.settle(near);
  if (total - gained < WORTH_A_LOOK * total) {
    const begun = tour.beginBest(Math.max(0, i - 3), Math.min(n - 1, j + 3));
    if (begun > 0) {
      gained += begun;
      for (let k = Math.max(0, i - 3); k <= Math.min(n - 1, j + 3); k++) tour.wake(k);
      gained += tour.settle(near);
    }
  }
  if (gained > -loss && Math.abs(gained) > WORTH2) return gained;
  tour.takeBack();
  return 0;
}

// src/core/toolpath/ordering/stops.ts
function costInSeconds(speed, acceleration) {
  const toSpeed = speed * speed / acceleration;
  const [short, each, more] = [2 / Math.sqrt(acceleration), 1 / speed, speed / acceleration];
  return (dx, dy) => {
    const d = Math.sqrt(dx * dx + dy * dy);
    return d < toSpeed ? short * Math.sqrt(d) : each * d + more;
  };
}
function tourCost({ stops }, { order, ways }, from, cost2) {
  let sum2 = 0;
  let at = from;
  for (const i of order) {
    const way = stops[i]?.ways[ways[i] ?? 0];
    if (!way) continue;
    sum2 += cost2(way.from.x - at.x, way.from.y - at.y);
    at = way.to;
  }
  return sum2;
}

// ../../tmp/bj.mts
var cost = costInSeconds(500, 3e3);
var HOME = { x: 0, y: 0 };
var how = process.argv[2] ?? "full";
var jobs = JSON.parse(readFileSync("/tmp/jobs.json", "utf8"));
var best = process.argv[3] ? JSON.parse(readFileSync(process.argv[3], "utf8")) : null;
var sum = 0;
var line = [];
var ratios = [];
var b = performance.now();
jobs.forEach((job, k) => {
  const s = searchOrder(job, { from: HOME, cost, how });
  let step = s.next();
  while (!step.done) step = s.next();
  const c = tourCost(job, step.value, HOME, cost);
  if (best?.[k + 1]) ratios.push(c / best[k + 1]);
  line.push(c.toFixed(3));
  sum += c;
});
console.log(line.join(" "), "sum", sum.toFixed(3), "ms", (performance.now() - b).toFixed(0), ratios.length ? `mean ${((ratios.reduce((x, y) => x + y) / ratios.length - 1) * 100).toFixed(2)} worst ${((Math.max(...ratios) - 1) * 100).toFixed(2)}` : "");
