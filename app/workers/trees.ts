import './alive';
import { expose, transfer } from 'comlink';
import { treeOrder } from '../../core/kernels/tree';
import { triangleCentres, triangleTree } from '../../core/kernels/triangleTree';
import type { TreesWorker } from '../state/meshTrees';

/* Builds the tree over a large mesh, off the page. */

const worker: TreesWorker = {
  build({ positions, indices }, onProgress) {
    const centres = triangleCentres(positions, indices);
    onProgress(0.1);
    const tree = triangleTree(positions, indices, treeOrder(centres, 3), onProgress);
    return transfer(tree, [tree.order.buffer, tree.bounds.buffer, tree.levels.buffer, tree.corners.buffer]);
  },
};

expose(worker);
