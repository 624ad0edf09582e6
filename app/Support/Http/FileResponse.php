<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Support\Problems\Problem;
use LucidStep\Core\Evidence\FileKind;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\StreamedResponse;

/**
 * Answers with a stored file. Nothing but a plain picture is shown in the browser, and nothing in it runs.
 */
final readonly class FileResponse
{
    /** What browsers are told of; anything else is mere bytes to them. */
    private const TOLD = ['text/plain', 'image/png', 'image/jpeg', 'image/webp', 'video/webm', 'video/mp4'];

    public function __construct(private Filesystem $files) {}

    /**
     * A small picture of it; the whole one until that is made.
     */
    public function thumbnail(StoredFile $file, string $name): StreamedResponse|JsonResponse
    {
        return 'ready' === $file->thumbnail
            ? $this->stream($file->thumbnailPath(), 'image/webp', $name, true)
            : $this->stream($file->path(), $file->media_type, $name, true);
    }

    public function stream(string $path, string $type, string $name, bool $inline): StreamedResponse|JsonResponse
    {
        $stream = $this->files->exists($path) ? $this->files->readStream($path) : null;
        if (null === $stream) {
            return Problem::notFound()->toResponse(request());
        }

        return new StreamedResponse(
            static function () use ($stream): void {
                fpassthru($stream);
            },
            Response::HTTP_OK,
            [
                'Content-Type' => match (true) {
                    'text/plain' === $type => 'text/plain; charset=utf-8',
                    \in_array($type, self::TOLD, true) => $type,
                    default => FileKind::BYTES,
                },
                'Content-Disposition' => HeaderUtils::makeDisposition(
                    $inline ? 'inline' : 'attachment',
                    FileKind::safeName(str_replace(['/', '\\'], '-', $name), $type),
                    'file',
                ),
                'Content-Security-Policy' => "default-src 'none'; sandbox",
                'Cache-Control' => 'private, max-age=3600',
            ],
        );
    }
}
