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
      @pdf.element(:P) { @pdf.text(@document.kind, size: 9, style: :bold, color: PINE) }
      @pdf.element(:H1) { @pdf.text(@document.title, size: 20, style: :bold) }
      @pdf.move_down(8)
      table(@document.facts, [LABEL + 12, nil], as: FACTS) { |one| one.columns(0).text_color = SOFT }
      rule
    end

    def rule
      @pdf.move_down(8)
      @pdf.artifact do
        @pdf.stroke_color(LINE)
        @pdf.stroke_horizontal_rule
      end
    end

    def section(section)
      # A heading never stands alone at the foot of a page.
      @pdf.start_new_page if @pdf.cursor < 120
      @pdf.move_down(14)
      @pdf.element(:H2) { @pdf.text("#{section.number}  #{section.title}", size: 12.5, style: :bold) }
      @pdf.element(:P) { @pdf.text(section.note, size: 8.5, color: SOFT) } if section.note
      @pdf.move_down(3)
      return if section.rows.empty?

      table(section.rows.map { |kind, words| [kind.to_s, words] }, [LABEL, nil], as: LINES) do |one|
        one.columns(0).style(text_color: PINE, font_style: :bold, size: 9)
      end
    end

    def actions
      @pdf.start_new_page if @pdf.cursor < 110
      @pdf.move_down(18)
      @pdf.element(:H2) { @pdf.text("Actions", size: 12.5, style: :bold) }
      @pdf.move_down(4)
      rows = [["What", "Who", "By when"], *@document.actions]
      table(rows, [nil, 115, 118], as: ACTIONS, header: true, borders: [:bottom]) do |one|
        one.row(0).style(font_style: :bold, size: 8.5, text_color: SOFT)
      end
    end

    # How a table is read: the element of the whole and of a row, and of each of its cells, with what a head is for.
    FACTS = [:Table, :TR, ->(_, column) { column.zero? ? [:TH, :row] : [:TD, nil] }].freeze
    LINES = [:L, :LI, ->(_, column) { [column.zero? ? :Lbl : :LBody, nil] }].freeze
    ACTIONS = [:Table, :TR, ->(row, _) { row.zero? ? [:TH, :column] : [:TD, nil] }].freeze
    private_constant :FACTS, :LINES, :ACTIONS

    # Rows are not torn: one that does not fit goes to the next page as a whole.
    def table(rows, widths, as:, header: false, borders: [])
      given = widths.compact.sum
      columns = widths.map { |width| width || @pdf.bounds.width - given }
      style = {borders: borders, border_color: LINE, padding: [2, 8, 3, 0], inline_format: false}
      @pdf.table(rows, header: header, column_widths: columns, cell_style: style) do |one|
        yield one
        tag(one.cells, *as)
      end
    end

    def tag(cells, whole, each_row, each_cell)
      within = @pdf.element(whole)
      cells.group_by(&:row).sort.each do |row, some|
        line = @pdf.element(each_row, within)
        some.sort_by(&:column).each do |cell|
          kind, scope = each_cell.call(row, cell.column)
          cell.element = @pdf.element(kind, line, scope: scope)
        end
      end
    end

    def number_pages
      foot = "#{@document.title}, #{@document.day}    ·    Page "
      @pdf.repeat(:all, dynamic: true) do
        words = "#{foot}#{@pdf.page_number} of #{@pdf.page_count}"
        @pdf.artifact do
          @pdf.fill_color(SOFT)
          @pdf.draw_text(words, at: [@pdf.bounds.width - @pdf.width_of(words, size: 8), -22], size: 8)
        end
      end
    end
  end
end
