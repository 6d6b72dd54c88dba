package org.vastshelf.standins.store;

import java.io.IOException;
import java.net.URI;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.SecureRandom;
import java.util.HexFormat;
import java.util.Optional;
import org.gaul.s3proxy.S3Proxy;
import org.gaul.s3proxy.auth.AuthenticationType;
import org.gaul.s3proxy.blobstore.BlobStore;
import org.gaul.s3proxy.nio2blob.FilesystemNio2BlobStore;
import org.vastshelf.core.tier.StoreMood;

/**
 * An object store on loopback over a folder. Of several processes that share the folder one serves it; its port stays the
 * same, so that another can take over.
 */
public final class EmbeddedStore implements AutoCloseable {

    public static final String BUCKET = "larkmoor-cold";
    public static final String REGION = "larkmoor-1";
    private static final String ACCESS_KEY = "vast-shelf-demo";

    private final FileChannel locked;
    private final S3Proxy server;

    private EmbeddedStore(FileChannel locked, S3Proxy server) {
        this.locked = locked;
        this.server = server;
    }

    /** What clients sign their requests with. */
    public record Keys(String accessKey, String secretKey) {}

    /**
     * Begins to serve.
     *
     * @return empty while another process serves the folder
     * @throws IOException when the folder can't be written, or the port is taken by another program
     */
    public static Optional<EmbeddedStore> start(Path folder) throws IOException {
        Files.createDirectories(folder.resolve("objects"));
        FileChannel channel =
                FileChannel.open(folder.resolve("lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        if (tryLock(channel).isEmpty()) {
            channel.close();
            return Optional.empty();
        }
        try {
            S3Proxy server = server(folder);
            server.start();
            Files.writeString(folder.resolve("port"), String.valueOf(server.getPort()));
            return Optional.of(new EmbeddedStore(channel, server));
        } catch (Exception failed) {
            channel.close();
            throw failed instanceof IOException io ? io : new IOException("the object store did not start", failed);
        }
    }

    private static Optional<FileLock> tryLock(FileChannel channel) throws IOException {
        try {
            return Optional.ofNullable(channel.tryLock());
        } catch (OverlappingFileLockException ownProcess) {
            return Optional.empty();
        }
    }

    private static S3Proxy server(Path folder) throws IOException {
        Keys keys = keys(folder);
        BlobStore blobs = new FilesystemNio2BlobStore(folder.resolve("objects").toString());
        if (!blobs.containerExists(BUCKET)) {
            blobs.createContainer(BUCKET);
        }
        return S3Proxy.builder()
                .blobStore(new MoodyBlobs(blobs, folder))
                .endpoint(URI.create("http://127.0.0.1:" + port(folder).orElse(0)))
                .awsAuthentication(AuthenticationType.AWS_V4, keys.accessKey(), keys.secretKey())
                .ignoreUnknownHeaders(true)
                .build();
    }

    /** Where it is served, by whichever process; empty before the first time. */
    public static Optional<Integer> port(Path folder) throws IOException {
        Path file = folder.resolve("port");
        return Files.exists(file) ? Optional.of(Integer.parseInt(Files.readString(file))) : Optional.empty();
    }

    /** Made at the first time. */
    public static Keys keys(Path folder) throws IOException {
        Path file = folder.resolve("secret");
        if (!Files.exists(file)) {
            byte[] secret = new byte[20];
            new SecureRandom().nextBytes(secret);
            Files.createDirectories(folder);
            Path next = Files.createTempFile(
                    folder,
                    "secret",
                    "",
                    PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
            Files.writeString(next, HexFormat.of().formatHex(secret));
            Files.move(next, file);
        }
        return new Keys(ACCESS_KEY, Files.readString(file));
    }

    /** How it answers from now on, whichever process serves. */
    public static void mood(Path folder, StoreMood mood) throws IOException {
        StoreMoods.write(folder, mood);
    }

    public static StoreMood mood(Path folder) throws IOException {
        return StoreMoods.read(folder);
    }

    public URI endpoint() {
        return URI.create("http://127.0.0.1:" + server.getPort());
    }

    @Override
    public void close() throws IOException {
        try {
            server.stop();
        } catch (Exception failed) {
            throw new IOException("the object store did not stop", failed);
        } finally {
            locked.close();
        }
    }
}
