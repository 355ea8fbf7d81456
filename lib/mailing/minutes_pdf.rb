module Mailing
  # Minutes on paper; readable in grey.
  class MinutesPdf
    PINE, LINE = "14524A", "C9D0CD"
    SOFT = PaperSheet::SOFT
    LABEL = 96

    # @param document [MinutesDocument]
    def initialize(document) = @document = document

    # @return [String] the file
    def source
      build
      number_pages
      @pdf.render
    end

    private

    def build
      @pdf = PaperSheet.new("#{@document.title}, #{@document.day}", size: 9.5)
      @pdf.default_leading = 1.5
      head
      @document.sections.each { |section| section(section) }
      actions unless @document.actions.empty?
    end

    def head
      @pdf.text(@document.kind, size: 9, style: :bold, color: PINE)
      @pdf.text(@document.title, size: 20, style: :bold)
      @pdf.move_down(8)
      table(@document.facts, [LABEL + 12, nil]) { |one| one.columns(0).text_color = SOFT }
      rule
    end

    def rule
      @pdf.move_down(8)
      @pdf.stroke_color(LINE)
      @pdf.stroke_horizontal_rule
    end

    def section(section)
      # A heading never stands alone at the foot of a page.
      @pdf.start_new_page if @pdf.cursor < 120
      @pdf.move_down(14)
      @pdf.text("#{section.number}  #{section.title}", size: 12.5, style: :bold)
      @pdf.text(section.note, size: 8.5, color: SOFT) if section.note
      @pdf.move_down(3)
      return if section.rows.empty?

      table(section.rows.map { |kind, words| [kind.to_s, words] }, [LABEL, nil]) do |one|
        one.columns(0).style(text_color: PINE, font_style: :bold, size: 9)
      end
    end

    def actions
      @pdf.start_new_page if @pdf.cursor < 110
      @pdf.move_down(18)
      @pdf.text("Actions", size: 12.5, style: :bold)
      @pdf.move_down(4)
      rows = [["What", "Who", "By when"], *@document.actions]
      table(rows, [nil, 115, 85], header: true, borders: [:bottom]) do |one|
        one.row(0).style(font_style: :bold, size: 8.5, text_color: SOFT)
      end
    end

    # Rows are not torn: one that does not fit goes to the next page as a whole.
    def table(rows, widths, header: false, borders: [])
      given = widths.compact.sum
      columns = widths.map { |width| width || @pdf.bounds.width - given }
      style = {borders: borders, border_color: LINE, padding: [2, 8, 3, 0], inline_format: false}
      @pdf.table(rows, header: header, column_widths: columns, cell_style: style) { |one| yield one }
    end

    def number_pages
      foot = "#{@document.title}, #{@document.day}    ·    Page <page> of <total>"
      @pdf.number_pages(foot, at: [0, -22], width: @pdf.bounds.width, align: :right, size: 8, color: SOFT)
    end
  end
end
