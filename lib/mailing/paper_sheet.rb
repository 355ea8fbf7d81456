module Mailing
  # An empty page of paper (PDF, A4), with fonts that ship with the application and stand in the file.
  module PaperSheet
    FONTS = File.expand_path("../../web/node_modules/dejavu-fonts-ttf/ttf", __dir__)
    SOFT = "56635D"
    MARGIN = 56

    module_function

    # @return [TaggedPaper]
    def new(title, size: 10)
      TaggedPaper.new(page_size: "A4", margin: MARGIN, info: {Title: title}).tap do |pdf|
        pdf.state.store.root.data[:Lang] = "en-GB"
        pdf.font_families.update("DejaVu" => {normal: "#{FONTS}/DejaVuSans.ttf", bold: "#{FONTS}/DejaVuSans-Bold.ttf"})
        pdf.font("DejaVu", size: size)
      end
    end
  end
end
