<?php

declare(strict_types=1);

namespace ZipStream;

/**
 * Writes a ZIP file to a stream: built in a temporary file by ZipArchive, handed on when it is finished.
 */
final class ZipStream
{
    private readonly string $path;

    private readonly \ZipArchive $zip;

    /**
     * @param  resource  $outputStream a stream open for writing
     * @param  mixed  ...$asked what else the calling package asks for by name; ZipArchive decides that itself
     */
    public function __construct(private $outputStream, mixed ...$asked)
    {
        unset($asked);
        $this->path = (string) tempnam(sys_get_temp_dir(), 'zip');
        $this->zip = new \ZipArchive();
        if (true !== $this->zip->open($this->path, \ZipArchive::CREATE | \ZipArchive::OVERWRITE)) {
            throw new \RuntimeException("A temporary ZIP file cannot be written at {$this->path}.");
        }
    }

    public function addFile(string $fileName, string $data): void
    {
        $this->zip->addFromString($fileName, $data);
    }

    public function addFileFromPath(string $fileName, string $path): void
    {
        $this->zip->addFile($path, $fileName);
    }

    /**
     * @return int how many bytes were written
     */
    public function finish(): int
    {
        $this->zip->close();
        $from = fopen($this->path, 'r') ?: throw new \RuntimeException('The ZIP file cannot be read back.');
        $bytes = (int) stream_copy_to_stream($from, $this->outputStream);
        fclose($from);
        unlink($this->path);

        return $bytes;
    }
}
