require "zip"

module Views
  # Everything of a series in one file: minutes as issued, papers, and its registers, all in open formats.
  class Archive < Base
    # Beyond so much the papers left are only named, in a file of their own.
    MOST_PAPER_BYTES = 200_000_000

    # @return [Array(String, String)] name and bytes
    def zip(series_id)
      series = find(Records::Series, series_id)
      @hidden = Loading::ClosedTopics.hidden_from(by, [series_id])
      @closed = Core::Sheet::ClosedTopics.new(@hidden) unless Loading::ClosedTopics.readers(series).include?(by)
      buffer = Zip::OutputStream.write_buffer do |zip|
        minutes(series) { |name, bytes| put(zip, name, bytes) }
        put(zip, "decisions.csv", Decisions.new(by: by, clock: @clock).csv(series_id))
        %w[open closed].each { |state| put(zip, "actions, #{state}.csv", actions(series_id, state)) }
        papers(series) { |name, bytes| put(zip, name, bytes) }
      end
      ["#{Core::Paper.safe_name(series.title)}.zip", buffer.string]
    end

    private

    def put(zip, name, bytes)
      zip.put_next_entry(name)
      zip.write(bytes)
    end

    def actions(series_id, state) =
      Actions.new(by: by, clock: @clock).csv(whose: "all", series_id: series_id, state: state)

    def minutes(series)
      days = days(series)
      versions = Records::MinutesVersion.where(meeting_id: days.keys).order(:number)
      versions.to_a.group_by(&:meeting_id).each do |meeting_id, some|
        day = days.fetch(meeting_id)
        some.each do |version|
          document = MinutesFile.document(version.sheet, version: version, closed: @closed)
          name = "minutes/#{day}#{", version #{version.number}" if some.size > 1}"
          yield "#{name}.pdf", Mailing::MinutesPdf.new(document).source
          yield "#{name}.md", Mailing::MinutesMarkdown.new(document).source
        end
      end
    end

    # By the day it was held, and of several on one day by the one it was planned for as well.
    # @return [Hash{String => String}] by meeting
    def days(series)
      held = series.meetings.to_a.group_by { |meeting| meeting.held_on(series.zone) }
      held.flat_map { |day, some|
        some.map do |meeting|
          planned = ", planned for #{series.zone.wall(meeting.starts_at).strftime("%F %H.%M")}" if some.size > 1
          [meeting.id, "#{day.iso8601}#{planned}"]
        end
      }.to_h
    end

    def papers(series)
      room, left = MOST_PAPER_BYTES, []
      whole = Records::Paper.besides(@hidden).where(series_id: series.id, complete: true).includes(:meeting)
      whole.order(:created_at, :id).each do |paper|
        room -= paper.size_bytes
        next left << paper.name if room.negative?

        day = paper.meeting ? paper.meeting.held_on(series.zone).iso8601 : "of actions"
        pieces = Records::PaperPiece.where(paper_id: paper.id).order(:number).pluck(:bytes)
        yield "papers/#{day}/#{paper.id[-6..]} #{paper.name}", pieces.join
      end
      yield "papers/not in this file.txt", left.join("\n") if left.any?
    end
  end
end
