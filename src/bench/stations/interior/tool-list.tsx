/** The job's list of tools: changed in place. */
import { Plus, X } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { ListedTool } from '@/core/document/schema';
import { LIMITS } from '@/core/limits';
import { NumberField, QuantityField } from '@/ui/fields';
import { change, useBench } from '../../store';
import styles from './interior.module.css';
import { ToolShapes } from './tool-words';

/** The job's tools. */
export function ToolList() {
  const tools = useBench((s) => s.job.tools);
  const unit = useBench((s) => s.job.units);
  const set = (id: string, values: Partial<ListedTool>, merge: string | null = null) =>
    change((job) => {
      const tool = job.tools.find((t) => t.id === id);
      if (tool) Object.assign(tool, values);
    }, merge && `tool:${id}:${merge}`);
  const add = () =>
    change((job) => {
      const ids = new Set(job.tools.map((t) => t.id));
      let n = 1;
      while (ids.has(`tool-${n}`)) n++;
      job.tools.push({ id: `tool-${n}`, shape: 'flat', tip: 1, angle: 60, depth: 0.5, feed: 800 });
    });
  return (
    <>
      <ul className={styles.list}>
        {tools.map((tool) => (
          <li key={tool.id}>
            <div className={styles.kind}>
              <Form.Select
                size="sm"
                aria-label="Kind of tool"
                value={tool.shape}
                onChange={(e) => set(tool.id, { shape: e.target.value as ListedTool['shape'] })}
              >
                <ToolShapes />
              </Form.Select>
              <Button
                variant="plain"
                aria-label="Take this tool off the list"
                onClick={() =>
                  change((job) => {
                    job.tools = job.tools.filter((t) => t.id !== tool.id);
                  })
                }
              >
                <X size={14} />
              </Button>
            </div>
            <QuantityField
              bare
              label="Width"
              prefix="wide"
              unit={unit}
              value={tool.tip}
              least={0.01}
              most={1000}
              stepMm={0.1}
              onChange={(tip) => set(tool.id, { tip }, 'tip')}
            />
            <QuantityField
              bare
              label="Depth"
              prefix="deep"
              unit={unit}
              value={tool.depth}
              least={0.001}
              most={1000}
              stepMm={0.1}
              onChange={(depth) => set(tool.id, { depth }, 'depth')}
            />
            {tool.shape === 'cone' && (
              <div className={styles.whole}>
                <NumberField
                  bare
                  label="Angle"
                  prefix="angle"
                  suffix="°"
                  value={tool.angle}
                  least={1}
                  most={170}
                  step={5}
                  onChange={(angle) => set(tool.id, { angle }, 'angle')}
                />
              </div>
            )}
            <div className={styles.whole}>
              <NumberField
                bare
                label={`Feed in ${unit} a minute`}
                prefix="feed"
                suffix={`${unit}/min`}
                value={tool.feed}
                scale={unit === 'mm' ? 1 : 1 / 25.4}
                least={1}
                most={1_000_000}
                step={unit === 'mm' ? 50 : 2}
                digits={unit === 'mm' ? 0 : 1}
                onChange={(feed) => set(tool.id, { feed }, 'feed')}
              />
            </div>
          </li>
        ))}
      </ul>
      <Button variant="plain" disabled={tools.length >= LIMITS.tools} onClick={add}>
        <Plus size={14} /> Add a tool
      </Button>
    </>
  );
}
