module Mailing
  # An agenda on paper.
  class AgendaPdf
    SOFT = PaperSheet::SOFT

    # @param agenda [Hash] as Loading::Agenda gives it
    def initialize(agenda)
      @agenda = agenda
    end

    # @return [String] the PDF
    def to_s
      pdf = PaperSheet.new(@agenda[:title], size: 10.5)
      head(pdf)
      section(pdf, "Left over", left_over)
      section(pdf, "Agenda", topics)
      pdf.render
    end

    private

    def left_over
      @agenda[:left_over].map do |action|
        [action[:text], [*action[:owners], (age(action) if action[:carried].positive?)].compact.join(", ")]
      end
    end

    def topics
      @agenda[:topics].each_with_index.map do |topic, i|
        ["#{i + 1}  #{topic[:title]}", [topic[:presenter], "#{topic[:length_min]} min"].compact.join(", ")]
      end
    end

    def age(action) = "carried #{(action[:carried] == 1) ? "once" : "#{action[:carried]} times"}"

    def head(pdf)
      pdf.text @agenda[:title], size: 20, style: :bold
      pdf.text [@agenda[:at], @agenda[:location]].compact.join(" · "), color: SOFT
      pdf.move_down 18
    end

    def section(pdf, title, rows)
      return if rows.empty?

      pdf.text title, size: 13, style: :bold
      rows.each do |words, about|
        pdf.move_down 5
        pdf.text words
        pdf.text about, size: 8.5, color: SOFT unless about.empty?
      end
      pdf.move_down 18
    end
  end
end
