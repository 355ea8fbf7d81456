module Views
  # A line as its sheet shows it; and how one that is still being typed would be kept.
  class Line < Base
    # @raise [Core::NotFound] when it is removed, too
    def show(id) = LineRows.row(find(LineRows.load(Records::Line.standing), id))

    # @param text [String] what is typed
    def read(meeting_id, text) = Loading::LineReading.new(find(Records::Meeting, meeting_id), by: by).read(text)
  end
end
