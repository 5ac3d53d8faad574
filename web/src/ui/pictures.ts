/** The forms of pictures that the server takes. */
export const PICTURES = 'image/jpeg,image/png,image/webp,image/heic,image/heif'
