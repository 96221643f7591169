// Pictures imported by the guide have a type before Next.js has written its own file of types in a fresh clone.
/// <reference types="next/image-types/global" />
