<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A file's content, known by its SHA-256. The content itself lies in the file storage.
 *
 * @property string  $sha256
 * @property int     $bytes
 * @property string  $media_type
 * @property ?int    $width      pixels
 * @property ?int    $height     pixels
 * @property string  $thumbnail  none, waiting, ready or failed
 */
final class StoredFile extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $table = 'files';

    protected $primaryKey = 'sha256';

    protected $keyType = 'string';

    protected $guarded = [];

    /**
     * Where the content lies in the storage.
     */
    public function path(): string
    {
        return 'evidence/' . substr($this->sha256, 0, 2) . '/' . $this->sha256;
    }

    /**
     * Where the thumbnail lies in the storage.
     */
    public function thumbnailPath(): string
    {
        return 'thumbnails/' . substr($this->sha256, 0, 2) . '/' . $this->sha256 . '.webp';
    }

    /**
     * Whether browsers may show it in the page: plain raster pictures only.
     */
    public function isPicture(): bool
    {
        return \in_array($this->media_type, ['image/png', 'image/jpeg', 'image/webp'], true);
    }
}
