package knollfield.app.job.picture;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Iterator;
import java.util.Locale;
import java.util.Set;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageReadParam;
import javax.imageio.ImageReader;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.stream.ImageInputStream;
import knollfield.app.problem.InvalidInput;

/**
 * A picture made small enough to keep.
 *
 * @param width pixels, at most {@value #LONGEST_EDGE}
 * @param height pixels, at most {@value #LONGEST_EDGE}
 */
@SuppressWarnings("ArrayRecordComponent") // bytes on their way to the database; never compared
public record ShrunkPicture(byte[] jpeg, int width, int height) {

    static final int LONGEST_EDGE = 1600;

    /** Largest picture taken in, bytes. */
    static final int MOST_BYTES = 12 * 1024 * 1024;

    /** Above this many pixels a file is refused before it is unpacked: a small file can hold a huge picture. */
    private static final long MOST_PIXELS = 60_000_000;

    private static final Set<String> FORMATS = Set.of("jpeg", "png");
    private static final float QUALITY = 0.82f;

    /**
     * Reads, shrinks and writes anew; what stood beside the picture in the file, such as a place, is not kept.
     *
     * @throws InvalidInput for what is no JPEG or PNG picture, or too large
     */
    public static ShrunkPicture of(byte[] file) {
        if (file.length == 0) {
            throw refused("The file is empty.");
        }
        if (file.length > MOST_BYTES) {
            throw refused("The picture is larger than 12 MB.");
        }
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(file))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) {
                throw refused("This is no JPEG or PNG picture.");
            }
            ImageReader reader = readers.next();
            try {
                if (!FORMATS.contains(reader.getFormatName().toLowerCase(Locale.ROOT))) {
                    throw refused("This is no JPEG or PNG picture.");
                }
                reader.setInput(in);
                if ((long) reader.getWidth(0) * reader.getHeight(0) > MOST_PIXELS) {
                    throw refused("The picture has more than 60 million pixels.");
                }
                ImageReadParam param = reader.getDefaultReadParam();
                // every so many pixels only: the whole of a large picture would fill the memory
                int every = Math.max(1, Math.max(reader.getWidth(0), reader.getHeight(0)) / (2 * LONGEST_EDGE));
                param.setSourceSubsampling(every, every, 0, 0);
                synchronized (ShrunkPicture.class) {
                    return shrink(reader.read(0, param));
                }
            } finally {
                reader.dispose();
            }
        } catch (IOException | IllegalArgumentException | IndexOutOfBoundsException e) {
            throw refused("The picture cannot be read; it may be damaged.");
        }
    }

    private static ShrunkPicture shrink(BufferedImage image) throws IOException {
        double scale = Math.min(1, LONGEST_EDGE / (double) Math.max(image.getWidth(), image.getHeight()));
        int width = Math.max(1, (int) Math.round(image.getWidth() * scale));
        int height = Math.max(1, (int) Math.round(image.getHeight() * scale));
        BufferedImage small = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = small.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BILINEAR);
        g.drawImage(image, 0, 0, width, height, Color.WHITE, null);
        g.dispose();
        ImageWriter writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (var out = ImageIO.createImageOutputStream(bytes)) {
            ImageWriteParam param = writer.getDefaultWriteParam();
            param.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            param.setCompressionQuality(QUALITY);
            writer.setOutput(out);
            writer.write(null, new IIOImage(small, null, null), param);
        } finally {
            writer.dispose();
        }
        return new ShrunkPicture(bytes.toByteArray(), width, height);
    }

    private static InvalidInput refused(String why) {
        return new InvalidInput("/file", why);
    }
}
