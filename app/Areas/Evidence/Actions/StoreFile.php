<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Actions;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use League\Flysystem\FilesystemException;
use League\Flysystem\UnableToWriteFile;
use LucidStep\App\Areas\Evidence\Jobs\MakeThumbnail;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Support\Files\ContentHash;
use LucidStep\Core\Evidence\FileKind;

/**
 * Keeps a file's content under its SHA-256. What it is, is told by its content, never by its name.
 */
final readonly class StoreFile
{
    /** The pictures that are taken, by the type PHP finds in their content. */
    private const PICTURES = [\IMAGETYPE_PNG => 'image/png', \IMAGETYPE_JPEG => 'image/jpeg', \IMAGETYPE_WEBP => 'image/webp'];

    public function __construct(private Filesystem $files) {}

    /**
     * @throws ValidationException when the file is empty, too large, or not what its name says
     */
    public function __invoke(UploadedFile $upload): StoredFile
    {
        $path = $upload->getRealPath();
        $bytes = (int) $upload->getSize();
        if (!$upload->isValid() || false === $path) {
            $this->refuse('The file did not arrive whole. Try again.');
        }
        $head = (string) file_get_contents($path, false, null, 0, FileKind::HEAD);
        $isRecording = null !== FileKind::recording($head);
        $most = (int) config($isRecording ? 'lucid.evidence.max_recording_bytes' : 'lucid.evidence.max_bytes');
        if (0 === $bytes) {
            $this->refuse('The file is empty.');
        }
        if ($bytes > $most) {
            $this->refuse(\sprintf('The file has %.1f MB; at most %.0f MB are taken.', $bytes / 1_048_576, $most / 1_048_576));
        }
        [$type, $width, $height] = $this->kind($path, $head, mb_strtolower($upload->getClientOriginalExtension()));
        $hash = (string) hash_file('sha256', $path);
        $file = StoredFile::query()->find($hash);
        if (null !== $file && $this->isWhole($file)) {
            return $file;
        }
        $file ??= new StoredFile([
            'sha256' => $hash,
            'bytes' => $bytes,
            'media_type' => $type,
            'width' => $width,
            'height' => $height,
            'created_at' => Carbon::now(),
        ]);
        $file->thumbnail = null === $width ? 'none' : 'waiting';
        $this->write($file, $path);
        StoredFile::query()->insertOrIgnore($file->getAttributes());
        if (null !== $width) {
            MakeThumbnail::dispatch($hash);
        }

        return $file;
    }

    /**
     * Writes the content beside its place and moves it there when it arrived whole, so that a full disk leaves nothing that
     * looks like it.
     *
     * @throws FilesystemException when the storage does not take it
     */
    private function write(StoredFile $file, string $path): void
    {
        $beside = "{$file->path()}.part-" . bin2hex(random_bytes(6));
        $upload = fopen($path, 'r') ?: throw new \RuntimeException('The upload cannot be read.');
        try {
            $this->files->writeStream($beside, $upload);
            if (ContentHash::of($this->files, $beside) !== $file->sha256) {
                throw UnableToWriteFile::atLocation($beside, 'it was not written whole');
            }
            $this->files->move($beside, $file->path());
        } catch (\Throwable $e) {
            $this->files->delete($beside);
            throw $e;
        } finally {
            fclose($upload);
        }
    }

    /**
     * Whether the content that is there is what it is said to be.
     */
    private function isWhole(StoredFile $file): bool
    {
        return ContentHash::of($this->files, $file->path()) === $file->sha256;
    }

    /**
     * @return array{string, ?int, ?int} media type, width and height
     */
    private function kind(string $path, string $head, string $extension): array
    {
        $size = @getimagesize($path);
        if (false !== $size && isset(self::PICTURES[$size[2]])) {
            $this->checkPicture($path, $size);

            return [self::PICTURES[$size[2]], $size[0], $size[1]];
        }
        $recording = FileKind::recording($head);
        if (null !== $recording) {
            return [$recording, null, null];
        }
        if (!\in_array($extension, ['txt', 'log', ''], true)) {
            try {
                return [FileKind::of($head, $extension)->mediaType, null, null];
            } catch (\DomainException $e) {
                $this->refuse($e->getMessage());
            }
        }
        $text = (string) file_get_contents($path);
        if (!mb_check_encoding($text, 'UTF-8') || 1 === preg_match('/[\x00-\x08\x0E-\x1A\x1C-\x1F]/', $text)) {
            if ('' === $extension) {
                return [FileKind::BYTES, null, null];
            }
            $this->refuse('The file is named as text but does not hold plain text (UTF-8).');
        }

        return ['text/plain', null, null];
    }

    /**
     * @param  array<int|string, mixed>  $size what getimagesize() found
     */
    private function checkPicture(string $path, array $size): void
    {
        $pixels = (int) $size[0] * (int) $size[1];
        $most = (int) config('lucid.evidence.max_pixels');
        if ($pixels > $most) {
            $this->refuse(
                \sprintf('The picture has %d × %d pixels; at most %d megapixels are taken.', $size[0], $size[1], intdiv($most, 1_000_000)),
            );
        }
        $side = (int) config('lucid.evidence.max_side');
        if (max((int) $size[0], (int) $size[1]) > $side) {
            $this->refuse(
                \sprintf('The picture has %d × %d pixels; no side may have more than %s.', $size[0], $size[1], number_format($side)),
            );
        }
        if ($pixels < 1) {
            $this->refuse('The picture is damaged.');
        }
        // Reading it once shows whether all of it is there.
        $read = match ($size[2]) {
            \IMAGETYPE_PNG => @imagecreatefrompng($path),
            \IMAGETYPE_JPEG => @imagecreatefromjpeg($path),
            default => @imagecreatefromwebp($path),
        };
        if (false === $read) {
            $this->refuse('The picture is damaged: it cannot be read to its end.');
        }
    }

    private function refuse(string $why): never
    {
        throw ValidationException::withMessages(['file' => $why]);
    }
}
