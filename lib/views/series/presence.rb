require "csv"

module Views
  # Who was in the calls of a series, from when to when.
  class Presence < Base
    PAGE_SIZE = 12

    # @return [Hash] the latest meetings first
    def list(series_id, page: 1)
      @series = find(Records::Series, series_id)
      {
        meetings: meetings.offset((page - 1) * PAGE_SIZE).limit(PAGE_SIZE).to_a.then { |some| rows(some) },
        page: page, page_size: PAGE_SIZE, total: meetings.count
      }
    end

    # @return [String] a line for each stretch somebody was in
    def csv(series_id)
      @series = find(Records::Series, series_id)
      CSV.generate(row_sep: "\r\n") do |csv|
        csv << ["Meeting", "Name", "From", "To", "Minutes"]
        rows(meetings.to_a).each do |meeting|
          meeting[:people].each { |person| person[:spans].each { |span| csv << line(meeting, person, span) } }
        end
      end
    end

    private

    def meetings
      reported = Records::CallReport.where(kind: %w[came left]).where.not(meeting_id: nil).select(:meeting_id)
      Records::Meeting.where(series_id: @series.id, id: reported).order(starts_at: :desc, id: :desc)
    end

    def rows(found)
      there = Loading::CallPresence.of_all(found.map(&:id))
      found.map do |meeting|
        {
          id: meeting.id, local_start: @series.zone.wall(meeting.starts_at),
          people: there[meeting.id].people.map { |person|
            {name: person.name, spans: person.spans.map { |one|
              span(*one)
            }}
          }
        }
      end
    end

    def span(from, to)
      {from: @series.zone.wall(from), to: to && @series.zone.wall(to), minutes: to && ((to - from) / 60.0).round}
    end

    def line(meeting, person, span) =
      [meeting[:local_start], person[:name], span[:from], span[:to], span[:minutes]].map { |cell| Cell.safe(cell) }
  end
end
