module Api
  # Server-sent events (HTML standard 9.2): one thread reads what changed and writes to all open streams, so that
  # a stream costs a socket and no thread. Changes come from the database, so any process may have made them. Each is
  # told with its number, and its content is made once for all who follow the sheet.
  class Live
    PAUSE_S = 0.2
    COMMENT_EVERY_S = 15
    # Then the browser comes back with the number it knows, and whether it may read is looked at again.
    LASTS_S = 60

    # So much may wait for one who reads slowly.
    MOST_WAITING = 2_000_000

    # `closed` whether they read closed topics.
    Stream = Struct.new(:io, :meeting_id, :closed, :told, :opened_at, :alive_at, :waiting)

    def self.hub = @hub ||= new

    def initialize(clock: Clock)
      @clock = clock
      @streams = []
      @lock = Mutex.new
    end

    # @param after [Integer, nil] the last change the reader knows of; nil: all so far
    # @param closed [Boolean] whether they read closed topics
    # @return [Array] a Rack response that hands its socket over
    def stream(meeting_id, closed:, after: nil)
      opened = ->(io) { add(io, meeting_id, closed, after) }
      [
        200,
        {
          "content-type" => "text/event-stream", "cache-control" => "no-store", "x-accel-buffering" => "no",
          "rack.hijack" => opened
        },
        [].each
      ] # an Array would be given a content-length
    end

    def close
      @lock.synchronize { @streams.each { |stream| stream.io.close }.clear }
    end

    private

    def add(io, meeting_id, closed, after)
      last = Records::Change.last_number(meeting_id)
      stream = Stream.new(io, meeting_id, closed, after || last, @clock.now, @clock.now, "".b)
      write(stream, "retry: 300\nevent: open\ndata: {}\n\n")
      gap(stream, last) unless after.nil? || whole?(meeting_id, after, last)
      @lock.synchronize do
        @streams << stream
        @thread = Thread.new { watch } unless @thread&.alive? # one killed by a fork is not
      end
    end

    # Changes are kept for an hour; whoever was away longer reads the page again.
    def whole?(meeting_id, after, last) = Records::Change.since({meeting_id => after}).size == last - after

    def gap(stream, last)
      tell(stream, last, event(last, {kind: "sheet"}))
    end

    def watch
      until done?
        sleep PAUSE_S
        look
      end
    end

    # Decided under the lock, so that whoever comes in between finds no thread, and starts one.
    def done? = @lock.synchronize { @streams.empty? && (@thread = nil).nil? }

    def look
      streams = @lock.synchronize { @streams.dup }
      changes = changed(streams).group_by(&:first)
      streams.each { |stream| tell_all(stream, changes.fetch(stream.meeting_id, [])) }
    rescue ActiveRecord::ActiveRecordError
      nil # the database is away; what changed meanwhile is told when it is back
    rescue => error
      Log.broken(error, "followSheet")
    end

    # What is wrong with one stream ends that one alone; its browser comes back.
    def tell_all(stream, changes)
      changes.each { |_, number, whole, others| tell(stream, number, stream.closed ? whole : others) }
      keep(stream)
    rescue => error
      Log.broken(error, "followSheet")
      drop(stream)
    end

    # @return [Array<Array(String, Integer, String, String)>] meeting, number and what is written to who reads closed
    #   topics, and to others
    def changed(streams)
      seen = streams.group_by(&:meeting_id).transform_values { |some| some.map(&:told).min }
      rows = Records::Change.since(seen)
      # Of several changes of the same thing the last tells what there is to tell.
      rows.reverse.uniq { |meeting_id, _, kind, subject_id| [meeting_id, kind, subject_id] }.reverse
        .map { |meeting_id, number, *what| [meeting_id, number, *events(number, *content(meeting_id, *what))] }
    end

    # Most of the time both are told the same.
    def events(number, whole, others)
      text = event(number, whole)
      [text, (whole == others) ? text : event(number, others)]
    end

    def content(meeting_id, kind, subject_id)
      Views::SheetPart.new(clock: @clock).show(meeting_id, kind, subject_id)
    rescue ActiveRecord::ActiveRecordError
      raise
    rescue => error
      # Something was removed while it was read, or is broken: who reads the sheet anew sees which.
      Log.broken(error, "followSheet") unless error.is_a?(Core::NotFound)
      [{kind: "sheet"}] * 2
    end

    def event(number, content) = "id: #{number}\nevent: changed\ndata: #{Json.write({number: number, **content})}\n\n"

    def tell(stream, number, text)
      return if number <= stream.told

      stream.told = number
      write(stream, text)
    end

    def keep(stream)
      return drop(stream) if @clock.now - stream.opened_at > LASTS_S

      late = @clock.now - stream.alive_at > COMMENT_EVERY_S
      write(stream, late ? ": here\n\n" : "") if late || !stream.waiting.empty?
    end

    # A reader that is gone or does not read is dropped; its browser comes back by itself.
    def write(stream, text)
      stream.alive_at = @clock.now
      stream.waiting << text.b
      written = stream.io.write_nonblock(stream.waiting, exception: false)
      stream.waiting = stream.waiting.byteslice(written..) unless written == :wait_writable
      drop(stream) if stream.waiting.bytesize > MOST_WAITING
    rescue IOError, SystemCallError
      drop(stream)
    end

    def drop(stream)
      @lock.synchronize { @streams.delete(stream) }
      stream.io.close
    end
  end
end
