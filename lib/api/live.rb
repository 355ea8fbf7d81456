module Api
  # Server-sent events (HTML standard 9.2): one thread reads what changed and writes to all open streams, so that
  # a stream costs a socket and no thread. Changes come from the database, so any process may have made them.
  class Live
    PAUSE_S = 0.4
    # A change is committed after the instant it carries: as long after as a write is tried again, and its last try
    # takes. Each look goes back that far.
    OVERLAP_S = Records::Change::COMMITTED_WITHIN_S
    JUST_NOW_S = 5
    COMMENT_EVERY_S = 15

    Stream = Struct.new(:io, :meeting_id, :alive_at)

    def self.hub = @hub ||= new

    def initialize(clock: Time)
      @clock = clock
      @streams = []
      @lock = Mutex.new
      @seen = {}
    end

    # @return [Array] a Rack response that hands its socket over
    def stream(meeting_id)
      opened = ->(io) { add(io, meeting_id) }
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

    def add(io, meeting_id)
      stream = Stream.new(io, meeting_id, @clock.now)
      # Before it is said that the stream is open: what is committed from then on must be told.
      remember unless @thread&.alive?
      write(stream, "retry: 1000\nevent: open\ndata: {}\n\n") && @lock.synchronize do
        @streams << stream
        @thread = Thread.new { watch } unless @thread&.alive?
      end
    end

    # What was there well before is on the page already.
    def remember
      @from = @clock.now - OVERLAP_S
      @seen = Records::Change.where(changed_at: @from..@clock.now - JUST_NOW_S).pluck(:id).to_h { |id| [id, true] }
    end

    def watch
      until @lock.synchronize { @streams.empty? }
        sleep PAUSE_S
        tell(changed)
      end
    end

    # Meetings with a change not seen before.
    def changed
      looked_at = @clock.now
      rows = Records::Change.where("changed_at >= ?", @from).pluck(:id, :meeting_id)
      fresh = rows.reject { |id, _| @seen.key?(id) }
      @seen = rows.to_h { |id, _| [id, true] }
      @from = looked_at - OVERLAP_S
      fresh.map(&:last).uniq
    rescue ActiveRecord::ActiveRecordError
      [] # the database is away; what changed meanwhile is read when it is back
    end

    def tell(meeting_ids)
      now = @clock.now
      @lock.synchronize { @streams.dup }.each do |stream|
        if meeting_ids.include?(stream.meeting_id) then write(stream, "event: changed\ndata: {}\n\n")
        elsif now - stream.alive_at > COMMENT_EVERY_S then write(stream, ": here\n\n")
        end
      end
    end

    # A reader that is gone or does not read is dropped; its browser comes back by itself.
    def write(stream, text)
      stream.io.write_nonblock(text)
      stream.alive_at = @clock.now
      true
    rescue IOError, SystemCallError
      @lock.synchronize { @streams.delete(stream) }
      stream.io.close
      false
    end
  end
end
