import { AmbientLight, CatmullRomCurve3, CanvasTexture, Color, CylinderGeometry, DirectionalLight, DoubleSide, CircleGeometry, Group, Mesh, MeshStandardMaterial, PerspectiveCamera, RingGeometry, Scene, SRGBColorSpace, TubeGeometry, Vector3, WebGLRenderer, type Material } from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { radiiOf, type Blank } from '../../core/process/blanks.ts';
import { BEYOND_MM, radiusAt } from '../../core/proof/blankShape.ts';

/** A round blank that can be turned every way. */
export interface RoundScene {
  /** What is wound around it, as a picture of its printable area. */
  show(area: HTMLCanvasElement): void;
  resize(widthPx: number, heightPx: number, pixelRatio: number): void;
  /** Turned about its upright line, radians: as the flat view is. */
  turn(rad: number): void;
  dispose(): void;
}

const WALL_MM = 3;
/** Print lies so far outside of the body, so that the two do not flicker, mm. */
const OUTSIDE_MM = 0.3;
const SEGMENTS = 96;

/** @throws Error where the browser draws no three dimensions. */
export function roundScene(canvas: HTMLCanvasElement, blank: Blank, ground: string): RoundScene {
  const renderer = new WebGLRenderer({ canvas, antialias: true });
  const scene = new Scene();
  scene.background = new Color(ground);
  const radii = radiiOf(blank) ?? { upperMm: blank.widthMm / 4, lowerMm: blank.widthMm / 4 };
  const [upper, lower] = [radiusAt(radii, blank.heightMm, -BEYOND_MM.above), radiusAt(radii, blank.heightMm, blank.heightMm + BEYOND_MM.below)];
  const radius = Math.max(upper, lower);
  const height = blank.heightMm + BEYOND_MM.above + BEYOND_MM.below;
  const isGlass = blank.form === 'glass';
  const stuff = new MeshStandardMaterial({ color: blank.colour, roughness: 0.35, side: DoubleSide, ...(isGlass ? { transparent: true, opacity: 0.35 } : {}) });
  const body = new Group();
  body.add(new Mesh(new CylinderGeometry(upper, lower, height, SEGMENTS, 1, true), stuff), new Mesh(new CylinderGeometry(upper - WALL_MM, lower - WALL_MM, height, SEGMENTS, 1, true), stuff));
  body.add(level(new RingGeometry(upper - WALL_MM, upper, SEGMENTS), stuff, height / 2), level(new CircleGeometry(lower, SEGMENTS), stuff, -height / 2));
  if (!isGlass) body.add(handle((up) => (upper + lower) / 2 + (upper - lower) * up, height, stuff));
  // The printable area is in front, its middle towards whoever looks.
  const sweep = (2 * blank.widthMm) / (radii.upperMm + radii.lowerMm);
  const print = new MeshStandardMaterial({ transparent: true, roughness: 0.5, side: DoubleSide, depthWrite: false });
  const sleeve = new Mesh(new CylinderGeometry(radii.upperMm + OUTSIDE_MM, radii.lowerMm + OUTSIDE_MM, blank.heightMm, SEGMENTS, 1, true, -sweep / 2, sweep), print);
  sleeve.position.y = (BEYOND_MM.below - BEYOND_MM.above) / 2;
  sleeve.renderOrder = 1;
  sleeve.visible = false;
  body.add(sleeve);
  scene.add(body, new AmbientLight(0xffffff, 1.6));
  const light = new DirectionalLight(0xffffff, 1.8);
  light.position.set(-radius * 3, height * 2, radius * 5);
  scene.add(light);
  // What is nearer is never seen: depths are told apart finely then, also where they have few bits.
  const camera = new PerspectiveCamera(30, 1, radius * 0.6, radius * 40);
  camera.position.set(0, height * 0.35, Math.max(height, radius * 2) * 2.6);
  const controls = new OrbitControls(camera, canvas);
  controls.enablePan = false;
  controls.minDistance = radius * 2;
  controls.maxDistance = radius * 30;
  const draw = (): void => renderer.render(scene, camera);
  controls.addEventListener('change', draw);
  return {
    show(area) {
      print.map?.dispose();
      const texture = new CanvasTexture(area);
      texture.colorSpace = SRGBColorSpace;
      texture.anisotropy = renderer.capabilities.getMaxAnisotropy();
      print.map = texture;
      print.needsUpdate = true;
      sleeve.visible = true;
      draw();
    },
    resize(widthPx, heightPx, pixelRatio) {
      renderer.setPixelRatio(pixelRatio);
      renderer.setSize(widthPx, heightPx, false);
      camera.aspect = widthPx / Math.max(1, heightPx);
      camera.updateProjectionMatrix();
      draw();
    },
    turn(rad) {
      body.rotation.y = -rad;
      draw();
    },
    dispose() {
      controls.dispose();
      print.map?.dispose();
      scene.traverse((each) => {
        if (each instanceof Mesh) each.geometry.dispose();
      });
      stuff.dispose();
      print.dispose();
      renderer.dispose();
    },
  };
}

function level(geometry: RingGeometry | CircleGeometry, material: Material, y: number): Mesh {
  const mesh = new Mesh(geometry, material);
  mesh.rotation.x = -Math.PI / 2;
  mesh.position.y = y;
  return mesh;
}

/** A bow at the right side, from below the rim to above the foot. */
function handle(radiusAtShare: (up: number) => number, height: number, material: Material): Mesh {
  const at = (out: number, up: number): Vector3 => new Vector3(radiusAtShare(up) + out, up * height, 0);
  const bow = new CatmullRomCurve3([at(-WALL_MM, 0.3), at(16, 0.31), at(28, 0.16), at(28, -0.14), at(16, -0.29), at(-WALL_MM, -0.28)]);
  return new Mesh(new TubeGeometry(bow, 48, 5, 12), material);
}
